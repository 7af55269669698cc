// What recipes made to be dear take, each in a process of its own: seconds and memory, and how it ends.
#include "composition/figure.h"
#include "dear/dear_recipes.h"
#include "files/export.h"

#include <chrono>
#include <cstdio>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

using namespace coulter;

int main() {
    double slowest = 0, largest = 0;
    std::printf("%-44s %8s %8s  %s\n", "recipe", "seconds", "MB", "ends with");
    for (const DearRecipe& recipe : dearRecipes()) {
        std::fflush(stdout);
        const auto start = std::chrono::steady_clock::now();
        const pid_t child = ::fork();
        if (child == 0) {
            const Exported done = exportFigure(recipe.document, *findFormat("pdf"));
            std::string sentence = done.bytes
                                       ? done.unfinished ? "a figure, and: " + done.unfinished->sentence : "a figure"
                                       : done.problem.sentence;
            if (sentence.size() > 110) sentence = sentence.substr(0, 107) + "...";
            rusage used{};
            ::getrusage(RUSAGE_SELF, &used);
            const double seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
            std::printf("%-44s %8.2f %8.0f  %s\n", recipe.name.c_str(), seconds,
                        static_cast<double>(used.ru_maxrss) / 1024, sentence.c_str());
            std::fflush(stdout);
            ::_exit(sentence.empty() ? 1 : 0);
        }
        int status = 0;
        rusage used{};
        ::wait4(child, &status, 0, &used);
        if (!WIFEXITED(status) || WEXITSTATUS(status) != 0) std::printf("%-44s ended badly\n", recipe.name.c_str());
        slowest = std::max(slowest, std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count());
        largest = std::max(largest, static_cast<double>(used.ru_maxrss) / 1024);
    }
    std::printf("slowest %.1f s of 20, largest %.0f MB of 1000\n", slowest, largest);
}
