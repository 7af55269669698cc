// Coverage-guided fuzzing: any bytes as a recipe, through reading, drawing and writing, or as a look. Nothing may
// crash, hang or grow without bound; what is read must be written so that it reads back.
#include "files/recipe.h"
#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "files/look_file.h"

#include <chrono>
#include <cstdlib>
#include <thread>

using namespace coulter;

namespace {

void tryAsLook(const std::string& text) {
    const LookRead read = readLook(text);
    if (read.look.has_value() != read.problem.sentence.empty()) std::abort();
    if (!read.look) return;
    const LookRead again = readLook(writeLook(*read.look));
    if (!again.look || again.look->settings != read.look->settings) std::abort();
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const RecipeRead read = readRecipe({reinterpret_cast<const char*>(data), size});
    if (!read.document) {
        if (read.problem.sentence.empty()) std::abort();
        tryAsLook({reinterpret_cast<const char*>(data), size});
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
