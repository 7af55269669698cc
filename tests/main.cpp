// The one main of all test programs.
#define CATCH_CONFIG_RUNNER
#include <catch2/catch.hpp>

/// A test program that needs something made before its tests, such as an application object, defines this.
__attribute__((weak)) void beforeTests(int& argc, char** argv);
/// And this to take it down again while everything it needs is still there.
__attribute__((weak)) void afterTests();

int main(int argc, char** argv) {
    if (beforeTests) beforeTests(argc, argv);
    const int status = Catch::Session().run(argc, argv);
    if (afterTests) afterTests();
    return status;
}
