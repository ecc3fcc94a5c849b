# The catalogue of everything that a person reads: build/…/words/ibuki.pot, which translators begin from, and a made-up
# language with longer words (qps) for the tests. Translations will be .po files beside it.
find_program(XGETTEXT xgettext REQUIRED)
find_program(MSGEN msgen REQUIRED)
find_program(MSGFILTER msgfilter REQUIRED)
find_program(MSGFMT msgfmt REQUIRED)

file(GLOB_RECURSE IBUKI_SPEAKING CONFIGURE_DEPENDS ${CMAKE_SOURCE_DIR}/src/words/*.cpp ${CMAKE_SOURCE_DIR}/src/store/*.cpp
  ${CMAKE_SOURCE_DIR}/src/cli/*.cpp ${CMAKE_SOURCE_DIR}/src/app/*.cpp ${CMAKE_SOURCE_DIR}/src/app/*.h)
list(JOIN IBUKI_SPEAKING "\n" speaking)
file(GENERATE OUTPUT ${CMAKE_BINARY_DIR}/words/sources.txt CONTENT "${speaking}\n")
set(IBUKI_POT ${CMAKE_BINARY_DIR}/words/ibuki.pot)
set(IBUKI_LOCALE ${CMAKE_BINARY_DIR}/words/locale)

set(gather ${XGETTEXT} --language=C++ --from-code=UTF-8 --sort-by-file --package-name=Ibuki --files-from=sources.txt
  --output=${IBUKI_POT} --keyword)
add_custom_command(OUTPUT ${IBUKI_POT}
  COMMAND ${gather} --keyword=say --keyword=mark --keyword=titled --keyword=sayMany:1,2
          --keyword=one:2 --keyword=many:2,3 --keyword=wrong:2 --keyword=wrongMany:2,3
  COMMAND ${gather} --join-existing --keyword=wrong:3 --keyword=wrongMany:4 # it takes one place of a function only
  DEPENDS ${IBUKI_SPEAKING} ${CMAKE_BINARY_DIR}/words/sources.txt
  WORKING_DIRECTORY ${CMAKE_BINARY_DIR}/words
  COMMENT "Gathering the catalogue")

set(IBUKI_LONGER ${IBUKI_LOCALE}/qps/LC_MESSAGES/ibuki.mo)
add_custom_command(OUTPUT ${IBUKI_LONGER}
  COMMAND ${CMAKE_COMMAND} -E make_directory ${IBUKI_LOCALE}/qps/LC_MESSAGES
  COMMAND ${MSGEN} --output-file=same.po ${IBUKI_POT}
  COMMAND ${MSGFILTER} --keep-header --input=same.po --output-file=longer.po
          awk -f ${CMAKE_SOURCE_DIR}/tests/support/longer.awk
  COMMAND ${MSGFMT} --output-file=${IBUKI_LONGER} longer.po
  DEPENDS ${IBUKI_POT} ${CMAKE_SOURCE_DIR}/tests/support/longer.awk
  WORKING_DIRECTORY ${CMAKE_BINARY_DIR}/words
  COMMENT "Making the language with longer words")
add_custom_target(ibuki_longer_words DEPENDS ${IBUKI_LONGER})
