# The window. Everything but main.cpp is a library, so that tests can drive it.
file(GLOB_RECURSE app_sources CONFIGURE_DEPENDS ${PROJECT_SOURCE_DIR}/app/*.cpp ${PROJECT_SOURCE_DIR}/app/*.hpp)
list(REMOVE_ITEM app_sources ${PROJECT_SOURCE_DIR}/app/main.cpp)
add_library(jigapp STATIC ${app_sources})
set_target_properties(jigapp PROPERTIES AUTOMOC ON)
target_link_libraries(jigapp PUBLIC jigcore Qt6::Widgets Qt6::OpenGL Qt6::OpenGLWidgets Qt6::PrintSupport Qt6::Svg)
# GCC 12 warns of moved-from values inside the JSON library here; nothing of ours is uninitialised.
set_source_files_properties(${PROJECT_SOURCE_DIR}/app/stages/run/sentences.cpp ${PROJECT_SOURCE_DIR}/app/stages/heat/sentences.cpp PROPERTIES COMPILE_OPTIONS -Wno-maybe-uninitialized)
target_compile_definitions(jigapp PUBLIC JIG_SOURCE_DATA="${PROJECT_SOURCE_DIR}/data")
# What nearly every file of it includes: the whole of the toolkit takes twice as long to read.
set(window_includes <QApplication> <QAction> <QBoxLayout> <QClipboard> <QComboBox> <QDateTime> <QDir> <QFileInfo> <QHeaderView> <QKeyEvent> <QLabel> <QLineEdit> <QListWidget> <QMenu> <QPainter> <QPushButton> <QScrollArea> <QSettings> <QTableWidget> <QTimer> <QToolButton>)
target_precompile_headers(jigapp PRIVATE <nlohmann/json.hpp> <Eigen/Core> <Eigen/Geometry> <fmt/format.h> <vector> <string> ${window_includes} ${PROJECT_SOURCE_DIR}/core/job/evaluate.hpp)

add_executable(jigshell app/main.cpp)
target_link_libraries(jigshell PRIVATE jigapp)
