// Prints the largest errors of the catalogue's functions against Arb, as the manual's table.
#include "oracle.h"

#include <cstdio>
#include <cstdlib>

int main(int argc, char** argv) {
    const int density = argc > 1 ? std::atoi(argv[1]) : 1000;
    std::printf("| function | points | largest error, ulp | elsewhere, in roundings of x |\n|---|---|---|---|\n");
    for (const oracle::Points& points : oracle::allPoints()) {
        const oracle::Errors e = oracle::compare(points, density);
        std::printf("| `%.*s` | %d | %.2f | %.2f |", static_cast<int>(points.form.size()), points.form.data(), e.points,
                    e.ulps, e.relative);
        if (argc > 2) { // where
            for (const double v : e.worst) std::printf(" %.17g", v);
            std::printf(" |");
            for (const double v : e.worstOther) std::printf(" %.17g", v);
            if (e.undefined > 0) std::printf(" UNDEFINED %d at", e.undefined);
            for (const double v : e.undefinedAt) std::printf(" %.17g", v);
        }
        std::printf("\n");
        std::fflush(stdout);
    }
}
