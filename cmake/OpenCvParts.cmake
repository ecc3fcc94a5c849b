# The parts of OpenCV that are used, without the package of all of them: Debian's imgproc carries no CMake
# files of its own.
find_path(IBUKI_OPENCV_INCLUDE opencv2/imgproc.hpp PATH_SUFFIXES opencv4 REQUIRED)
foreach(part core imgproc)
  find_library(IBUKI_OPENCV_${part} opencv_${part} REQUIRED)
  add_library(ibuki_opencv_${part} INTERFACE IMPORTED GLOBAL)
  target_include_directories(ibuki_opencv_${part} SYSTEM INTERFACE ${IBUKI_OPENCV_INCLUDE})
  target_link_libraries(ibuki_opencv_${part} INTERFACE ${IBUKI_OPENCV_${part}})
endforeach()
