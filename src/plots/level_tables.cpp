#include "plots/level_tables.h"

#include "plots/level_proofs.h"
#include "plots/levels.h"

#include <cmath>
#include <limits>

namespace coulter {
namespace {

constexpr double nothing = std::numeric_limits<double>::quiet_NaN();

/// Rows of numbers, kept by the table itself.
SampleTable tableOfRows(std::vector<std::string> columns, std::vector<double> numbers,
                        std::vector<const char*> states) {
    SampleTable table;
    const std::size_t width = columns.size();
    table.rows = numbers.size() / width;
    table.columns = table.names = std::move(columns);
    const auto kept = std::make_shared<const std::vector<double>>(std::move(numbers));
    table.number = [kept, width](std::size_t row, std::size_t column) { return (*kept)[row * width + column]; };
    if (!states.empty()) {
        const auto said = std::make_shared<const std::vector<const char*>>(std::move(states));
        table.state = [said](std::size_t row) { return (*said)[row]; };
    }
    return table;
}

double lengthOnSheet(const Isoline& line, const Frame& frame) {
    const std::vector<Point> points = onSheet(line.path, frame);
    double length = 0;
    for (std::size_t i = 0; i + (line.closed ? 0 : 1) < points.size(); ++i) {
        const Point &a = points[i], &b = points[(i + 1) % points.size()];
        length += std::hypot(b.x - a.x, b.y - a.y);
    }
    return length;
}

/// The rings of an area: those round all that is at or above it, and those round what is beyond it.
template <typename Call> void eachArea(const LevelLines& found, const std::vector<double>& levels, const Call& call) {
    for (std::size_t area = 0; area <= levels.size(); ++area) {
        std::vector<Path> rings = area == 0 ? found.domain : found.above[area - 1];
        if (area < levels.size()) rings.insert(rings.end(), found.above[area].begin(), found.above[area].end());
        call(area == 0 ? nothing : levels[area - 1], area == levels.size() ? nothing : levels[area], area, rings);
    }
}

/// With its sign: positive counterclockwise.
double areaOf(const Path& ring) {
    double area = 0;
    for (std::size_t i = 0, n = ring.size(); i < n; ++i) // from its first corner, so that large coordinates cancel
        area += ((ring.x[i] - ring.x[0]) * (ring.y[(i + 1) % n] - ring.y[0]) -
                 (ring.x[(i + 1) % n] - ring.x[0]) * (ring.y[i] - ring.y[0])) /
                2;
    return area;
}
double areaOf(const std::vector<Path>& rings) {
    double area = 0;
    for (const Path& ring : rings) area += areaOf(ring);
    return area;
}

} // namespace

SampleTable levelLinesTable(const Drawn& drawn, const Frame& frame) {
    const auto found = levelLinesOf(drawn, frame);
    const std::vector<double> levels = levelsOf(drawn, frame.colour);
    std::vector<double> numbers;
    std::vector<const char*> states;
    double count = 0;
    for (const Isoline& line : found->lines) {
        ++count;
        for (std::size_t i = 0; i < line.path.size(); ++i) {
            for (const double each :
                 {levels[line.level], count, line.closed ? 1.0 : 0.0, line.path.x[i], line.path.y[i]})
                numbers.push_back(each);
            const bool end = !line.closed && (i == 0 || i + 1 == line.path.size());
            states.push_back(end ? "edge" : "estimated");
        }
    }
    SampleTable table = tableOfRows({"level", "line", "closed", "x", "y"}, std::move(numbers), std::move(states));
    if (table.rows == 0) table.state = [](std::size_t) { return "estimated"; };
    table.heading.push_back(std::to_string(found->lines.size()) + " lines of " + std::to_string(levels.size()) +
                            " levels");
    return table;
}

std::vector<ReportRow> levelLinesReport(const Drawn& drawn, const Frame& frame) {
    const auto found = levelLinesOf(drawn, frame);
    const std::vector<double> levels = levelsOf(drawn, frame.colour);
    std::vector<ReportRow> rows;
    for (std::size_t level = 0; level < levels.size(); ++level) {
        double lines = 0, closed = 0, points = 0, length = 0;
        for (const Isoline& line : found->lines) {
            if (line.level != level) continue;
            ++lines;
            closed += line.closed;
            points += static_cast<double>(line.path.size());
            length += lengthOnSheet(line, frame);
        }
        rows.push_back({{"level", levels[level]},
                        {"lines", lines},
                        {"closed", closed},
                        {"points", points},
                        {"length in mm", length}});
    }
    Effort effort;
    effort.tolerance = frame.tolerance;
    const auto proofs = provenLevels(drawn, frame, effort);
    for (std::size_t level = 0; proofs && level < levels.size(); ++level) {
        const ZeroProof& proof = (*proofs)[level].proof;
        rows[level].insert(rows[level].end(),
                           {{"proven share", proof.share()},
                            {"share of the panel not settled", proof.area > 0 ? proof.unsettledArea / proof.area : 0},
                            {"evaluations over boxes", static_cast<double>(proof.evaluations)}});
    }
    return rows;
}

SampleTable levelAreasTable(const Drawn& drawn, const Frame& frame) {
    const auto found = levelLinesOf(drawn, frame);
    std::vector<double> numbers;
    eachArea(*found, levelsOf(drawn, frame.colour),
             [&](double low, double high, std::size_t area, const std::vector<Path>& rings) {
                 for (std::size_t r = 0; r < rings.size(); ++r) {
                     for (std::size_t i = 0; i < rings[r].size(); ++i) {
                         for (const double each : {low, high, static_cast<double>(area + 1), static_cast<double>(r + 1),
                                                   rings[r].x[i], rings[r].y[i]})
                             numbers.push_back(each);
                     }
                 }
             });
    SampleTable table = tableOfRows({"low", "high", "area", "ring", "x", "y"}, std::move(numbers), {});
    table.heading.push_back(std::to_string(found->above.size() + 1) + " areas");
    return table;
}

std::vector<ReportRow> levelAreasReport(const Drawn& drawn, const Frame& frame) {
    const auto found = contentLinesOf(drawn, frame);
    const std::vector<double> levels = levelsOf(drawn, frame.colour);
    std::vector<ReportRow> rows;
    for (std::size_t area = 0; area <= levels.size(); ++area) {
        const std::vector<Path>& from = area == 0 ? found->domain : found->above[area - 1];
        const double content = areaOf(from) - (area < levels.size() ? areaOf(found->above[area]) : 0);
        ReportRow row;
        if (area > 0) row.emplace_back("low", levels[area - 1]);
        if (area < levels.size()) row.emplace_back("high", levels[area]);
        row.emplace_back("content", content);
        rows.push_back(std::move(row));
    }
    return rows;
}

SampleTable zeroTable(const Drawn& drawn, const Frame& frame, const std::vector<SingularPoint>& singular) {
    const auto found = zeroLinesOf(drawn, frame);
    std::vector<double> numbers;
    std::vector<const char*> states;
    double count = 0;
    const auto add = [&](bool closed, double x, double y, const char* state) {
        for (const double each : {count, closed ? 1.0 : 0.0, x, y}) numbers.push_back(each);
        states.push_back(state);
    };
    for (const Isoline& line : found->lines) {
        ++count;
        for (std::size_t i = 0; i < line.path.size(); ++i) {
            const bool end = !line.closed && (i == 0 || i + 1 == line.path.size());
            add(line.closed, line.path.x[i], line.path.y[i], end ? "edge" : "estimated");
        }
    }
    for (const SingularPoint& point : singular) {
        ++count;
        add(false, point.x, point.y,
            point.kind == SingularKind::Crossing   ? "crossing"
            : point.kind == SingularKind::Isolated ? "isolated"
                                                   : "singular");
    }
    SampleTable table = tableOfRows({"line", "closed", "x", "y"}, std::move(numbers), std::move(states));
    if (table.rows == 0) table.state = [](std::size_t) { return "estimated"; };
    table.heading.push_back(std::to_string(found->lines.size()) + " lines");
    return table;
}

std::vector<ReportRow> zeroReport(const Drawn& drawn, const Frame& frame) {
    const auto found = zeroLinesOf(drawn, frame);
    double closed = 0, points = 0, length = 0;
    for (const Isoline& line : found->lines) {
        closed += line.closed;
        points += static_cast<double>(line.path.size());
        length += lengthOnSheet(line, frame);
    }
    return {{{"lines", static_cast<double>(found->lines.size())},
             {"closed", closed},
             {"points", points},
             {"length in mm", length}}};
}

SampleTable zeroAreaTable(const Drawn& drawn, const Frame& frame) {
    const auto found = zeroLinesOf(drawn, frame);
    std::vector<double> numbers;
    double count = 0;
    for (const Path& ring : found->above.empty() ? std::vector<Path>{} : found->above[0]) {
        ++count;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            for (const double each : {count, ring.x[i], ring.y[i]}) numbers.push_back(each);
        }
    }
    SampleTable table = tableOfRows({"ring", "x", "y"}, std::move(numbers), {});
    table.heading.push_back(std::to_string(static_cast<int>(count)) + " rings");
    return table;
}

std::vector<ReportRow> zeroAreaReport(const Drawn& drawn, const Frame& frame) {
    Frame fine = frame;
    fine.tolerance /= 1000;
    const auto found = zeroLinesOf(drawn, fine);
    if (found->above.empty()) return {{{"rings", 0}, {"content", 0}}};
    return {{{"rings", static_cast<double>(found->above[0].size())}, {"content", areaOf(found->above[0])}}};
}

} // namespace coulter
