// Holds the precompiled standard headers that all folders share; see CMakeLists.txt.
