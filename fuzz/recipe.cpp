// Coverage-guided fuzzing: any bytes as a recipe, through reading, drawing and writing. Nothing may crash, hang or grow
// without bound; what is read must be written so that it reads back.
#include "files/recipe.h"
#include "composition/figure.h"

#include <chrono>
#include <cstdlib>
#include <thread>

using namespace coulter;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const RecipeRead read = readRecipe({reinterpret_cast<const char*>(data), size});
    if (!read.document) {
        if (read.problem.sentence.empty()) std::abort();
        return 0;
    }
    const std::string written = writeRecipe(*read.document);
    const RecipeRead again = readRecipe(written);
    if (!again.document || writeRecipe(*again.document) != written) std::abort();
    // A stranger's figure may take long, but it stops when it is asked to.
    std::stop_source stop;
    const std::jthread patience([&](const std::stop_token& done) {
        for (int i = 0; i < 200 && !done.stop_requested(); ++i)
            std::this_thread::sleep_for(std::chrono::milliseconds(10));
        stop.request_stop();
    });
    drawFigure(*read.document, stop.get_token());
    return 0;
}
