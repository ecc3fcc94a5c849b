# Warnings, sanitizers and the two ways a target is added. Warnings are an interface target that our own
# targets link privately, so that they never reach the libraries of others.

add_library(ibuki_warnings INTERFACE)
target_compile_options(ibuki_warnings INTERFACE
  -Wall -Wextra -Wpedantic -Wconversion
  $<$<NOT:$<BOOL:${IBUKI_JOINED}>>:-Wshadow> # joined, a neighbour's name is in sight and may be used again
  # … and GCC takes the joined file for a header whose unnamed namespace could be another one elsewhere
  $<$<AND:$<BOOL:${IBUKI_JOINED}>,$<CXX_COMPILER_ID:GNU>>:-Wno-subobject-linkage>
  $<$<BOOL:${IBUKI_WERROR}>:-Werror>)

if(IBUKI_SANITIZE)
  add_compile_options(-fsanitize=${IBUKI_SANITIZE} -fno-omit-frame-pointer -fno-sanitize-recover=all)
  add_link_options(-fsanitize=${IBUKI_SANITIZE})
  # Of libraries' headers nothing is watched but what they do to our memory through functions that are: two fifths of
  # the build went into their code.
  if(CMAKE_CXX_COMPILER_ID STREQUAL "Clang")
    file(RELATIVE_PATH ignored ${CMAKE_BINARY_DIR} ${CMAKE_SOURCE_DIR}/cmake/sanitizer-ignore.txt)
    add_compile_options(-fsanitize-ignorelist=${ignored})
  endif()
endif()

# moc reads words, not types: it is told that the headers of libraries have been read already, which takes a quarter of
# the time (and it cannot read libstdc++'s <concepts>).
set(CMAKE_AUTOMOC_MOC_OPTIONS)
foreach(header ALGORITHM ARRAY ATOMIC CHRONO COMPARE CONCEPTS DEQUE FUNCTIONAL FUTURE ISTREAM LIST MAP MEMORY MUTEX NUMERIC
    OPTIONAL OSTREAM RANGES SET SPAN SSTREAM STDEXCEPT STRING STRING_VIEW THREAD TUPLE TYPE_TRAITS UNORDERED_MAP UTILITY
    VARIANT VECTOR)
  list(APPEND CMAKE_AUTOMOC_MOC_OPTIONS -D_GLIBCXX_${header})
endforeach()
foreach(header QABSTRACTSCROLLAREA QAPPLICATION QBYTEARRAY QCHECKBOX QCOLOR QCOMBOBOX QCUSTOMPLOT QDIALOG QELAPSEDTIMER QFONT
    QFORMLAYOUT QFRAME QICON QIMAGE QLABEL QLAYOUT QLINEEDIT QLIST QMAINWINDOW QOBJECT QPAINTERPATH QPEN QPLAINTEXTEDIT
    QPOINT QPOINTER QPUSHBUTTON QSTRING QSTRINGLIST QSTYLE QSTYLEDITEMDELEGATE QTABLEWIDGET QTEXTDOCUMENT QTIMER
    QT_QTCORE_MODULE QT_QTTEST_MODULE QT_QTWIDGETS_MODULE QUNDOSTACK QWIDGET)
  list(APPEND CMAKE_AUTOMOC_MOC_OPTIONS -D${header}_H)
endforeach()

# With IBUKI_JOINED the sources of a folder are compiled as one, which reads headers once: for builds that are made
# whole and thrown away. Names of a folder must not meet then, which tools/lint asks for too.
function(ibuki_join target)
  if(NOT IBUKI_JOINED)
    return()
  endif()
  set(groups)
  foreach(source ${ARGN})
    if(NOT source MATCHES "\\.cpp$" OR source MATCHES "^${CMAKE_BINARY_DIR}/")
      continue()
    endif()
    cmake_path(GET source PARENT_PATH folder)
    string(MAKE_C_IDENTIFIER "${folder}" key)
    math(EXPR n_${key} "0${n_${key}} + 1")
    math(EXPR part "${n_${key}} / 30")
    cmake_path(RELATIVE_PATH folder BASE_DIRECTORY ${CMAKE_SOURCE_DIR} OUTPUT_VARIABLE name)
    string(REPLACE "/" "_" group "${name}_${part}")
    list(APPEND groups ${group})
    # Included as from src/ or tests/, so that the joined source is the same in every checkout.
    string(REGEX REPLACE "^${CMAKE_SOURCE_DIR}/[a-z]+/" "" included "${source}")
    string(APPEND text_${group} "#include \"${included}\"\n")
    set_source_files_properties(${source} PROPERTIES HEADER_FILE_ONLY ON)
  endforeach()
  list(REMOVE_DUPLICATES groups)
  foreach(group ${groups})
    set(joined ${CMAKE_CURRENT_BINARY_DIR}/${target}.joined/${group}.cpp)
    file(CONFIGURE OUTPUT ${joined} CONTENT "${text_${group}}" @ONLY)
    set_source_files_properties(${joined} PROPERTIES SKIP_AUTOMOC ON)
    target_sources(${target} PRIVATE ${joined})
  endforeach()
endfunction()

# ibuki_optimise(TARGET LEVEL [folder …]): how far Release optimises a target, or folders of it. What words, formats
# and prints is compiled quickly (-O1), what runs over fields and pictures for speed (-O3), the rest as preset (-O2).
function(ibuki_optimise target level)
  if(NOT ARGN)
    target_compile_options(${target} PRIVATE $<$<CONFIG:Release>:${level}>)
    return()
  endif()
  get_target_property(sources ${target} SOURCES)
  foreach(folder ${ARGN})
    foreach(source ${sources})
      if(source MATCHES "/${folder}/[^/]*\\.cpp$" OR source MATCHES "\\.joined/src_[a-z]+_${folder}_[0-9]+\\.cpp$")
        set_property(SOURCE ${source} APPEND PROPERTY COMPILE_OPTIONS $<$<CONFIG:Release>:${level}>)
      endif()
    endforeach()
  endforeach()
endfunction()

# ibuki_precompile(TARGET <header> …): compiles headers of libraries once for a target. For ccache the sum beside the
# result stands for it, since what a compiler writes differs by folder: it changes with the headers' versions.
function(ibuki_precompile target)
  target_precompile_headers(${target} PRIVATE ${ARGN})
  set(versions "${ARGN} ${Qt6_VERSION} ${fmt_VERSION} ${nlohmann_json_VERSION} ${CMAKE_CXX_COMPILER_ID}")
  string(APPEND versions " ${CMAKE_CXX_COMPILER_VERSION} ${CMAKE_CXX_LIBRARY_ARCHITECTURE}")
  string(SHA256 sum "${versions}")
  foreach(kind gch pch)
    file(CONFIGURE OUTPUT ${CMAKE_CURRENT_BINARY_DIR}/CMakeFiles/${target}.dir/cmake_pch.hxx.${kind}.sum
         CONTENT "${sum}" @ONLY)
  endforeach()
endfunction()

# One static library a floor. Includes are written from src/, for example "core/trace/trace.h".
function(ibuki_floor name)
  add_library(${name} STATIC ${ARGN})
  ibuki_join(${name} ${ARGN})
  target_include_directories(${name} PUBLIC ${CMAKE_SOURCE_DIR}/src)
  target_link_libraries(${name} PRIVATE ibuki_warnings)
endfunction()

# Tests spend their time in the libraries they link: their own code is compiled quickly rather than for speed.
set(IBUKI_TEST_OPTIONS $<$<CONFIG:Release>:-O1>)

# ibuki_test_room(NAME test_x SOURCES … LIBRARIES … [WINDOW] [GUI] [NO_COMMAND]): one program with the Qt Test classes of a
# room, and a CTest entry for each of them. WINDOW: it needs widgets. GUI: it links
# Qt6::Gui, which the precompiled header does not fit. NO_COMMAND: it does not run ibuki-cli.
function(ibuki_test_room)
  cmake_parse_arguments(T "WINDOW;GUI;NO_COMMAND" "NAME" "SOURCES;LIBRARIES" ${ARGN})
  add_executable(${T_NAME} ${CMAKE_SOURCE_DIR}/tests/support/test_main.cpp
                             ${CMAKE_BINARY_DIR}/tests/places.cpp ${T_SOURCES})
  ibuki_join(${T_NAME} ${T_SOURCES})
  set_target_properties(${T_NAME} PROPERTIES AUTOMOC ON)
  target_include_directories(${T_NAME} PRIVATE ${CMAKE_SOURCE_DIR}/src ${CMAKE_SOURCE_DIR}/tests)
  target_link_libraries(${T_NAME} PRIVATE ${T_LIBRARIES} Qt6::Test ibuki_warnings)
  target_compile_options(${T_NAME} PRIVATE ${IBUKI_TEST_OPTIONS})
  if(T_WINDOW)
    target_precompile_headers(${T_NAME} REUSE_FROM ibuki_window_test_pch)
    target_compile_definitions(${T_NAME} PRIVATE IBUKI_TEST_OF_WINDOW)
    target_sources(${T_NAME} PRIVATE ${CMAKE_SOURCE_DIR}/src/app/resources/ibuki.qrc)
    set_target_properties(${T_NAME} PROPERTIES AUTORCC ON)
    add_dependencies(${T_NAME} ibuki-demo-project)
  elseif(NOT T_GUI)
    target_precompile_headers(${T_NAME} REUSE_FROM ibuki_test_pch)
  endif()
  if(IBUKI_SANITIZE)
    target_compile_definitions(${T_NAME} PRIVATE IBUKI_SANITIZED)
  endif()
  add_dependencies(${T_NAME} ibuki_longer_words)
  if(NOT T_NO_COMMAND)
    add_dependencies(${T_NAME} ibuki-cli ibuki-sim-instrument)
  endif()
  foreach(source ${T_SOURCES})
    get_filename_component(class ${source} NAME_WE)
    file(STRINGS ${source} both REGEX "^IBUKI_STORY_ON_BOTH")
    if(both)
      list(APPEND classes ${class}_demo ${class}_fresh)
    else()
      list(APPEND classes ${class})
    endif()
  endforeach()
  foreach(class ${classes})
    add_test(NAME ${class} COMMAND ${T_NAME} ${class})
    set(cost 1)
    list(FIND IBUKI_TEST_COSTS ${class} place)
    if(place GREATER -1)
      math(EXPR place "${place} + 1")
      list(GET IBUKI_TEST_COSTS ${place} cost)
    endif()
    set_tests_properties(${class} PROPERTIES TIMEOUT 600 COST ${cost}
      ENVIRONMENT "QT_QPA_PLATFORM=offscreen;LC_ALL=C.UTF-8;XDG_CONFIG_HOME=${CMAKE_BINARY_DIR}/test-config/${class}")
  endforeach()
endfunction()
