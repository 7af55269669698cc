// Coverage-guided fuzzing: any bytes as words with formulas and values, typeset. Nothing may crash or hang; what is not
// read has a sentence and a place within the words.
#include "typeset/words.h"
#include "formula/base/text.h"
#include "formula/lines/read_page.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cstdlib>

using namespace coulter;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const Page page =
        readPage(std::vector<std::string>{"k_0 = 1.25, unit m", "n = 3", "f(x) = k_0 x^2", "x in [0, 1]"});
    if (size > 4000) return 0;
    const std::string text(reinterpret_cast<const char*>(data), size);
    const std::string words = withValues(page, text);
    const Box box = labelBox(words, FontId::Text, 3, page.names);
    if (!(box.width >= -1e9 && box.width < 1e9)) std::abort();
    const auto problem = wordsProblem(text, page.names);
    if (!problem) return 0;
    const int length = std::max(1, static_cast<int>(decodeUtf8(text).size()));
    if (problem->sentence.empty() || problem->first < 1 || problem->last > length) std::abort();
    return 0;
}
