# ccache and lld, where they are installed (tools/packages names both). Paths below the checkout are relative to ccache,
# and no command line but that of one generated source names the checkout, so that a clone elsewhere hits too. A
# precompiled header differs by where it was built: it is known by the sum beside it (ibuki_precompile).
find_program(IBUKI_CCACHE ccache)
if(IBUKI_CCACHE AND NOT CMAKE_CXX_COMPILER_LAUNCHER)
  set(CMAKE_CXX_COMPILER_LAUNCHER env CCACHE_BASEDIR=${CMAKE_SOURCE_DIR} CCACHE_NOHASHDIR=1 CCACHE_PCH_EXTSUM=1
      CCACHE_EXTRAFILES=${CMAKE_SOURCE_DIR}/cmake/sanitizer-ignore.txt
      CCACHE_SLOPPINESS=pch_defines,time_macros,include_file_mtime,include_file_ctime ${IBUKI_CCACHE})
  # What ccache needs to take a precompiled header for what is in it.
  if(CMAKE_CXX_COMPILER_ID STREQUAL "Clang")
    add_compile_options("SHELL:-Xclang -fno-pch-timestamp")
    set(CMAKE_CXX_COMPILE_OPTIONS_USE_PCH -include <PCH_HEADER>) # a path that ccache makes relative
  else()
    add_compile_options(-fpch-preprocess)
  endif()
endif()

find_program(IBUKI_LLD ld.lld)
if(IBUKI_LLD)
  add_link_options(-fuse-ld=lld)
endif()
