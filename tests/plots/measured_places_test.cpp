// Fields of more measured numbers than are drawn.
#include "formula/lines/read_page.h"
#include "formula/measured/measured_grid.h"
#include "plots/plot_kind.h"
#include "plots/sampling.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

constexpr std::size_t across = 6000, up = 5000;

double numberAt(std::size_t x, std::size_t y) {
    return std::sin(0.01 * static_cast<double>(x)) + static_cast<double>(y);
}

/// Numbers that are made when they are asked for.
class Made : public GridNumbers {
public:
    Made() : GridNumbers(across, up, 1, 1, "made") {}

private:
    void readRows(std::size_t, std::size_t firstRow, std::size_t rows, std::span<double> into) const override {
        for (std::size_t i = 0; i < rows * across; ++i) into[i] = numberAt(i % across, firstRow + i / across);
    }
};

Field fieldIn(const Panel& limits, const char* kind) {
    DataTable table;
    table.source = "h.nc";
    table.axes = {{"x", "", "", evenPlaces(across, 0, 1), false}, {"y", "", "", evenPlaces(up, 0, 1), false}};
    table.columns = {{"h", "", "", std::make_shared<const std::vector<double>>()}};
    table.far = std::make_shared<Made>();
    DataTables tables;
    tables.put(std::move(table));
    const std::vector<std::string> lines{"h(x, y) from \"h.nc\"", "x in [0, 6000]", "y in [0, 5000]"};
    const Page page = readPage(lines, tables);
    Panel panel = limits;
    panel.plots.push_back(plotOf("h(x, y)", kind));
    const PanelReading reading = readPlots(page, panel);
    REQUIRE(reading.drawn.size() == 1);
    return *fieldOf(reading.drawn[0]);
}

} // namespace

TEST_CASE("of more numbers than are drawn the means are, and within narrow limits the numbers themselves") {
    const Field whole = fieldIn({}, "heatmap");
    CHECK(whole.meansOver == 2);
    Panel panel;
    panel.x.limits = Limits{100.2, 109.7};
    panel.y.limits = Limits{4000, 4020.5};
    const Field part = fieldIn(panel, "heatmap");
    CHECK(part.meansOver == 1);
    // To the places whose cells reach in.
    CHECK(part.intervals[0].low == 99.5);
    CHECK(part.intervals[0].high == 110.5);
    Frame frame;
    frame.rect = {0, 0, 100, 80};
    frame.map = {{ScaleKind::Linear, 100.2, 109.7, 100}, {ScaleKind::Linear, 4000, 4020.5, 80}};
    const Samples samples = sampleSource(part, {}, frame, {}, {});
    const auto& field = std::get<FieldSamples>(samples);
    REQUIRE(field.pointCount() == 12U * field.rows.size());
    for (std::size_t i = 0; i < field.pointCount(); ++i)
        CHECK(field.values[0][i] ==
              numberAt(static_cast<std::size_t>(field.xAt(i)), static_cast<std::size_t>(field.yAt(i))));
    // One limit alone, and limits beyond all of it.
    Panel half;
    half.x.limits.low = 5000;
    CHECK(fieldIn(half, "heatmap").meansOver == 1);
    Panel beyond;
    beyond.x.limits = Limits{7000, 8000};
    CHECK(fieldIn(beyond, "heatmap").intervals[0].low == 5999.5); // where there is nothing to be seen little is read
}

TEST_CASE("a surface of measured numbers shows them where the panel is narrow") {
    CHECK(fieldIn({}, "surface").meansOver > 2);
    Panel panel;
    panel.x.limits = Limits{0, 50};
    panel.y.limits = Limits{0, 50};
    CHECK(fieldIn(panel, "surface").meansOver == 1);
}
