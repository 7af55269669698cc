// A measured field at many places at once.
#include "formula/measured/measured_field.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

using namespace coulter;

TEST_CASE("values at many places are those at one after the other, to the bit") {
    std::mt19937 random(3);
    std::uniform_real_distribution<double> any(-0.5, 6.5);
    for (const bool isLinear : {false, true}) {
        for (const std::size_t variables : {2U, 3U}) {
            MeasuredGrid grid;
            grid.isLinear = isLinear;
            std::size_t all = 1;
            for (std::size_t k = 0; k < variables; ++k) {
                grid.places.push_back({0, 1, 1.5, 3, 3.25, 6});
                all *= 6;
            }
            std::vector<double> numbers(all);
            for (double& number : numbers) number = random() % 7 == 0 ? std::nan("") : any(random);
            grid.values = std::make_shared<const std::vector<double>>(numbers);
            const auto field = fieldOfGrid(grid);
            std::array<std::vector<double>, 3> places;
            for (int i = 0; i < 4000; ++i) {
                for (std::size_t k = 0; k < 3; ++k) {
                    // Along rows, upon borders and places, beyond the field, and anywhere.
                    const double before = places[k].empty() ? 0 : places[k].back();
                    const auto choice = random() % 6;
                    places[k].push_back(choice < 2    ? before
                                        : choice == 2 ? before + 0.25
                                        : choice == 3 ? grid.places[0][random() % 6]
                                        : choice == 4 ? std::nan("")
                                                      : any(random));
                }
            }
            std::vector<double> together(places[0].size());
            field->values({places[0].data(), places[1].data(), places[2].data()}, together.size(), together.data());
            for (std::size_t i = 0; i < together.size(); ++i) {
                const double place[] = {places[0][i], places[1][i], places[2][i]};
                const double alone = field->at(place);
                CHECK((alone == together[i] || (std::isnan(alone) && std::isnan(together[i]))));
            }
        }
    }
}
