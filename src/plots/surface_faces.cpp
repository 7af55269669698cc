#include "plots/surface_faces.h"

#include "plots/field_source.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace coulter {
namespace {

using Vector = std::array<double, 3>;

Vector cross(const Vector& a, const Vector& b) {
    return {a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]};
}
double length(const Vector& a) { return std::sqrt(a[0] * a[0] + a[1] * a[1] + a[2] * a[2]); }

/// A program at many points.
std::vector<std::vector<double>> evaluated(const Program& program, const std::vector<double>& x,
                                           const std::vector<double>& y) {
    std::vector<std::vector<double>> values(program.outputs.size(), std::vector<double>(x.size()));
    std::vector<double*> out;
    for (auto& each : values) out.push_back(each.data());
    const double* const in[] = {x.data(), y.data()};
    evaluateInParallel(program, in, out, x.size());
    return values;
}

Place placeAt(const Field& field, double x, double y, const std::vector<std::vector<double>>& values, std::size_t i) {
    return field.isParametric() ? Place{values[0][i], values[1][i], values[2][i]} : Place{x, y, values[0][i]};
}

bool isFinite(const Place& place) {
    return std::ranges::all_of(place, [](double each) { return std::isfinite(each); });
}

/// Triangles of samples; rectangles of a meshgrid as two each, along the diagonal whose ends differ less.
std::vector<std::array<std::uint32_t, 3>> trianglesOf(const FieldSamples& samples) {
    if (samples.isMesh()) return samples.triangles;
    std::vector<std::array<std::uint32_t, 3>> triangles;
    const auto width = static_cast<std::uint32_t>(samples.columns.size()),
               height = static_cast<std::uint32_t>(samples.rows.size());
    const auto& z = samples.values.back();
    for (std::uint32_t j = 0; j + 1 < height; ++j) {
        for (std::uint32_t i = 0; i + 1 < width; ++i) {
            const std::uint32_t a = j * width + i, b = a + 1, c = a + width + 1, d = a + width;
            const bool ac = std::abs(z[a] - z[c]) <= std::abs(z[b] - z[d]);
            triangles.push_back(ac ? std::array{a, b, c} : std::array{a, b, d});
            triangles.push_back(ac ? std::array{a, c, d} : std::array{b, c, d});
        }
    }
    return triangles;
}

double valueShown(const Field& field, const FieldSamples& samples, std::size_t i) {
    return field.isParametric() ? samples.values[2][i] : samples.values[0][i];
}

} // namespace

double Lights::on(const Vector& normal) {
    const double side = normal[2] < 0 ? -1 : 1; // the side that is seen
    const auto from = [&](const Vector& light) {
        return std::max(0.0,
                        side * (normal[0] * light[0] + normal[1] * light[1] + normal[2] * light[2]) / length(light));
    };
    return everywhere + ofFirst * from(first) + ofSecond * from(second);
}

std::vector<Vector> surfaceNormals(const Drawn& drawn, const Frame& frame) {
    const Field& field = *fieldOf(drawn);
    const FieldSamples& samples = *fieldSamplesOf(drawn);
    const std::size_t count = samples.pointCount();
    // Differences over a small step either way, one-sided at an edge of what is defined.
    std::array<std::array<std::vector<double>, 2>, 2> at; // [direction][coordinate], both sides one after the other
    const auto step = [&](std::size_t k) {
        return 6e-6 * (field.intervals[k].high - field.intervals[k].low); // third root of the rounding unit
    };
    std::vector<Vector> normals(count, Vector{0, 0, 1});
    std::array<std::vector<Vector>, 2> along;
    for (std::size_t k = 0; k < 2; ++k) {
        std::vector<double> x, y;
        for (const double side : {-1.0, 1.0}) {
            for (std::size_t i = 0; i < count; ++i) {
                const auto moved = [&](std::size_t c, double value) {
                    const Interval& interval = field.intervals[c];
                    return c == k ? std::clamp(value + side * step(k), interval.low, interval.high) : value;
                };
                x.push_back(moved(0, samples.xAt(i)));
                y.push_back(moved(1, samples.yAt(i)));
            }
        }
        const auto values = evaluated(*field.program, x, y);
        along[k].resize(count);
        for (std::size_t i = 0; i < count; ++i) {
            const Place middle = placeOf(field, samples, i), before = placeAt(field, x[i], y[i], values, i),
                        after = placeAt(field, x[count + i], y[count + i], values, count + i);
            const Place &from = isFinite(before) ? before : middle, &to = isFinite(after) ? after : middle;
            const auto p = frame.space->seen(from), q = frame.space->seen(to);
            for (std::size_t c = 0; c < 3; ++c) along[k][i][c] = q[c] - p[c];
        }
    }
    for (std::size_t i = 0; i < count; ++i) {
        const Vector normal = cross(along[0][i], along[1][i]);
        const double size = length(normal);
        if (size > 0 && std::isfinite(size)) normals[i] = {normal[0] / size, normal[1] / size, normal[2] / size};
    }
    return normals;
}

Faces surfaceFaces(const Drawn& drawn, const Frame& frame, const SurfaceLook& look) {
    const Field& field = *fieldOf(drawn);
    const FieldSamples& samples = *fieldSamplesOf(drawn);
    Faces faces;
    faces.flat = look.flat;
    const std::size_t count = samples.pointCount();
    if (look.one) {
        faces.colours = {*look.one};
    } else {
        constexpr int shades = 1024;
        AxisMap scale = frame.colour;
        scale.length = shades - 1;
        for (int i = 0; i < shades; ++i)
            faces.colours.push_back(frame.shades.steps.empty() ? frame.shades.at(static_cast<double>(i) / (shades - 1))
                                                               : *frame.shades.of(scale.fromSheet(i), frame.colour));
    }
    std::vector<double> shown(count);
    for (std::size_t i = 0; i < count; ++i) shown[i] = valueShown(field, samples, i);
    if (field.tint && !look.one) {
        std::vector<double> x(count), y(count);
        for (std::size_t i = 0; i < count; ++i) {
            x[i] = samples.xAt(i);
            y[i] = samples.yAt(i);
        }
        shown = evaluated(*field.tint, x, y)[0];
    }
    std::vector<Vector> normals;
    if (look.lit) normals = surfaceNormals(drawn, frame);
    std::vector<Place> places(count);
    AxisMap colours = frame.colour;
    colours.length = 1;
    for (std::size_t i = 0; i < count; ++i) {
        places[i] = placeOf(field, samples, i);
        faces.points.push_back(frame.seen(places[i]));
        faces.place.push_back(look.one ? 0 : static_cast<float>(colours.toSheet(shown[i])));
        if (look.lit) faces.light.push_back(static_cast<float>(Lights::on(normals[i])));
    }
    // Cut at floor and ceiling where heights were limited: new points stand on edges, by the share of the way.
    const AxisMap& upright = frame.space->maps[2];
    const auto beyond = [&](std::uint32_t i) {
        return places[i][2] < upright.low ? -1 : places[i][2] > upright.high ? 1 : 0;
    };
    const auto between = [&](std::uint32_t a, std::uint32_t b, double z) {
        const double share = (z - places[a][2]) / (places[b][2] - places[a][2]);
        Place place{};
        for (std::size_t k = 0; k < 3; ++k) place[k] = places[a][k] + share * (places[b][k] - places[a][k]);
        place[2] = z;
        const auto mixed = [&](const std::vector<float>& of) {
            return of[a] + static_cast<float>(share) * (of[b] - of[a]);
        };
        places.push_back(place);
        faces.points.push_back(frame.seen(place));
        faces.place.push_back(mixed(faces.place));
        if (look.lit) faces.light.push_back(mixed(faces.light));
        return static_cast<std::uint32_t>(places.size() - 1);
    };
    for (const auto& t : trianglesOf(samples)) {
        if (!isFinite(places[t[0]]) || !isFinite(places[t[1]]) || !isFinite(places[t[2]])) continue;
        if (beyond(t[0]) == 0 && beyond(t[1]) == 0 && beyond(t[2]) == 0) {
            faces.triangles.push_back(t);
            continue;
        }
        std::vector<std::uint32_t> polygon(t.begin(), t.end());
        for (const double side : {-1.0, 1.0}) {
            const double z = side < 0 ? upright.low : upright.high;
            std::vector<std::uint32_t> kept;
            for (std::size_t k = 0; k < polygon.size(); ++k) {
                const std::uint32_t a = polygon[k], b = polygon[(k + 1) % polygon.size()];
                const bool in = side * (places[a][2] - z) <= 0, next = side * (places[b][2] - z) <= 0;
                if (in) kept.push_back(a);
                if (in != next) kept.push_back(between(a, b, z));
            }
            polygon = std::move(kept);
        }
        for (std::size_t k = 2; k < polygon.size(); ++k)
            faces.triangles.push_back({polygon[0], polygon[k - 1], polygon[k]});
    }
    return faces;
}

std::vector<std::vector<Place>> surfaceLines(const Drawn& drawn, const Frame& frame, int count) {
    const Field& field = *fieldOf(drawn);
    const PanelMap map = samplingMap(field, frame);
    const AxisMap& upright = frame.space->maps[2];
    constexpr int parts = 240; // of each line
    std::vector<std::vector<Place>> lines;
    for (std::size_t k = 0; k < 2; ++k) {
        // Along variable k, at equal steps of the other one.
        const auto axis = [&](std::size_t which) {
            AxisMap found = which == 0 ? map.x : map.y;
            found.low = std::max(found.low, field.intervals[which].low);
            found.high = std::min(found.high, field.intervals[which].high);
            return found;
        };
        AxisMap own = axis(k), other = axis(1 - k);
        own.length = parts;
        other.length = count - 1;
        for (int n = 0; n < count; ++n) {
            std::vector<double> x, y;
            const double fixed = n == 0 ? other.low : n == count - 1 ? other.high : other.fromSheet(n);
            for (int i = 0; i <= parts; ++i) {
                const double running = i == 0 ? own.low : i == parts ? own.high : own.fromSheet(i);
                x.push_back(k == 0 ? running : fixed);
                y.push_back(k == 0 ? fixed : running);
            }
            const auto values = evaluated(*field.program, x, y);
            bool broken = true;
            for (std::size_t i = 0; i < x.size(); ++i) {
                const Place place = placeAt(field, x[i], y[i], values, i);
                if (!isFinite(place) || place[2] < upright.low || place[2] > upright.high) {
                    broken = true;
                    continue;
                }
                if (broken) lines.emplace_back();
                broken = false;
                lines.back().push_back(place);
            }
        }
    }
    return lines;
}

std::optional<SurfacePoint> surfaceAt(const Drawn& drawn, const Frame& frame, Point mm) {
    const Field& field = *fieldOf(drawn);
    const FieldSamples& samples = *fieldSamplesOf(drawn);
    std::vector<SeenPoint> points(samples.pointCount());
    for (std::size_t i = 0; i < points.size(); ++i) points[i] = frame.seen(placeOf(field, samples, i));
    double nearest = -HUGE_VAL;
    std::array<double, 2> at{};
    for (const auto& t : trianglesOf(samples)) {
        const SeenPoint &a = points[t[0]], &b = points[t[1]], &c = points[t[2]];
        if (mm.x < std::min({a.x, b.x, c.x}) || mm.x > std::max({a.x, b.x, c.x})) continue;
        const double det = (b.x - a.x) * (c.y - a.y) - (c.x - a.x) * (b.y - a.y);
        const double wb = ((mm.x - a.x) * (c.y - a.y) - (c.x - a.x) * (mm.y - a.y)) / det,
                     wc = ((b.x - a.x) * (mm.y - a.y) - (mm.x - a.x) * (b.y - a.y)) / det;
        if (!(wb >= 0 && wc >= 0 && wb + wc <= 1)) continue;
        const double depth = a.towards + wb * (b.towards - a.towards) + wc * (c.towards - a.towards);
        if (!(depth > nearest)) continue;
        nearest = depth;
        const auto mixed = [&](const auto& of) {
            return of(t[0]) + wb * (of(t[1]) - of(t[0])) + wc * (of(t[2]) - of(t[0]));
        };
        at = {mixed([&](std::uint32_t i) { return samples.xAt(i); }),
              mixed([&](std::uint32_t i) { return samples.yAt(i); })};
    }
    if (nearest == -HUGE_VAL) return std::nullopt;
    const auto value = [&](double x, double y) {
        const auto values = evaluated(*field.program, {x}, {y});
        return placeAt(field, x, y, values, 0);
    };
    SurfacePoint found;
    found.place = value(at[0], at[1]);
    if (field.isParametric()) return found;
    const auto rise = [&](std::size_t k) {
        const double h = 6e-6 * (field.intervals[k].high - field.intervals[k].low);
        return (value(at[0] + (k == 0 ? h : 0), at[1] + (k == 1 ? h : 0))[2] -
                value(at[0] - (k == 0 ? h : 0), at[1] - (k == 1 ? h : 0))[2]) /
               (2 * h);
    };
    const double across = rise(0), up = rise(1), slope = std::hypot(across, up);
    if (std::isfinite(slope)) found.slope = slope;
    found.direction = std::atan2(up, across) * 180 / std::numbers::pi;
    return found;
}

const Drawn* surfaceInFront(std::span<const Drawn> drawn, const Frame& frame, Point mm) {
    std::vector<const Drawn*> surfaces;
    for (const Drawn& each : drawn) {
        const Field* field = fieldOf(each);
        if (frame.space && field && field->inSpace && fieldSamplesOf(each)) surfaces.push_back(&each);
    }
    if (surfaces.size() == 1) return surfaces[0]; // nothing hides it
    const Drawn* front = nullptr;
    double nearest = -HUGE_VAL;
    for (const Drawn* each : surfaces) {
        const auto found = surfaceAt(*each, frame, mm);
        if (!found) continue;
        if (const double towards = frame.seen(found->place).towards; towards > nearest) {
            nearest = towards;
            front = each;
        }
    }
    return front;
}

} // namespace coulter
