// Triangles beside Mesa's software rasteriser (OSMesa) on the same ones, in one run: a mesh of a million triangles by
// colours, and a surface of a million cells with four samples a dot.
#include "drawing/field_image.h"
#include "drawing/surface_raster.h"

#include <GL/gl.h>
#include <GL/glext.h>
#include <GL/osmesa.h>
#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <random>

using namespace coulter;

namespace {

constexpr int width = 1280, height = 800;

double milliseconds(const auto& work) {
    const auto start = std::chrono::steady_clock::now();
    work();
    return 1e3 * std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
}

/// The least of several runs of both in turn.
std::pair<double, double> leastTimes(const auto& one, const auto& other) {
    double a = HUGE_VAL, b = HUGE_VAL;
    for (int run = 0; run < 7; ++run) {
        a = std::min(a, milliseconds(one));
        b = std::min(b, milliseconds(other));
    }
    return {a, b};
}

/// A picture in memory that OSMesa draws into, with several samples a dot if it is asked for them.
class Mesa {
public:
    explicit Mesa(int samples) : dots_(static_cast<std::size_t>(width) * height) {
        context_ = OSMesaCreateContextExt(OSMESA_RGBA, 24, 0, 0, nullptr);
        if (!context_ || !OSMesaMakeCurrent(context_, dots_.data(), GL_UNSIGNED_BYTE, width, height)) return;
        isThere = true;
        if (samples == 0) return;
        const auto generate = reinterpret_cast<PFNGLGENFRAMEBUFFERSPROC>(OSMesaGetProcAddress("glGenFramebuffers"));
        const auto buffers = reinterpret_cast<PFNGLGENRENDERBUFFERSPROC>(OSMesaGetProcAddress("glGenRenderbuffers"));
        const auto bindBuffer = reinterpret_cast<PFNGLBINDRENDERBUFFERPROC>(OSMesaGetProcAddress("glBindRenderbuffer"));
        const auto store = reinterpret_cast<PFNGLRENDERBUFFERSTORAGEMULTISAMPLEPROC>(
            OSMesaGetProcAddress("glRenderbufferStorageMultisample"));
        const auto attach =
            reinterpret_cast<PFNGLFRAMEBUFFERRENDERBUFFERPROC>(OSMesaGetProcAddress("glFramebufferRenderbuffer"));
        bind_ = reinterpret_cast<PFNGLBINDFRAMEBUFFERPROC>(OSMesaGetProcAddress("glBindFramebuffer"));
        copy_ = reinterpret_cast<PFNGLBLITFRAMEBUFFERPROC>(OSMesaGetProcAddress("glBlitFramebuffer"));
        GLuint parts[2] = {};
        generate(1, &frame_);
        bind_(GL_FRAMEBUFFER, frame_);
        buffers(2, parts);
        bindBuffer(GL_RENDERBUFFER, parts[0]);
        store(GL_RENDERBUFFER, samples, GL_RGBA8, width, height);
        attach(GL_FRAMEBUFFER, GL_COLOR_ATTACHMENT0, GL_RENDERBUFFER, parts[0]);
        bindBuffer(GL_RENDERBUFFER, parts[1]);
        store(GL_RENDERBUFFER, samples, GL_DEPTH_COMPONENT24, width, height);
        attach(GL_FRAMEBUFFER, GL_DEPTH_ATTACHMENT, GL_RENDERBUFFER, parts[1]);
        glGetIntegerv(GL_SAMPLES, &samplesThere);
    }
    ~Mesa() { OSMesaDestroyContext(context_); }

    /// Triangles by points in mm of a sheet of 160 × 100, with a colour at each.
    void draw(const std::vector<float>& points, const std::vector<std::uint8_t>& colours,
              const std::vector<std::uint32_t>& corners, bool withDepth) {
        if (frame_ != 0) bind_(GL_FRAMEBUFFER, frame_);
        glViewport(0, 0, width, height);
        glMatrixMode(GL_PROJECTION);
        glLoadIdentity();
        glOrtho(0, 160, 100, 0, -100, 100);
        withDepth ? glEnable(GL_DEPTH_TEST) : glDisable(GL_DEPTH_TEST);
        glClearColor(1, 1, 1, 1);
        glClear(GL_COLOR_BUFFER_BIT | GL_DEPTH_BUFFER_BIT);
        glEnableClientState(GL_VERTEX_ARRAY);
        glEnableClientState(GL_COLOR_ARRAY);
        glVertexPointer(3, GL_FLOAT, 0, points.data());
        glColorPointer(4, GL_UNSIGNED_BYTE, 0, colours.data());
        glDrawElements(GL_TRIANGLES, static_cast<GLsizei>(corners.size()), GL_UNSIGNED_INT, corners.data());
        if (frame_ != 0) {
            bind_(GL_DRAW_FRAMEBUFFER, 0);
            copy_(0, 0, width, height, 0, 0, width, height, GL_COLOR_BUFFER_BIT, GL_NEAREST);
        }
        glFinish();
    }
    std::size_t painted() const {
        return static_cast<std::size_t>(
            std::ranges::count_if(dots_, [](std::uint32_t dot) { return dot != 0xffffffffU; }));
    }
    bool isThere = false;
    int samplesThere = 0;

private:
    std::vector<std::uint32_t> dots_;
    OSMesaContext context_ = nullptr;
    GLuint frame_ = 0;
    PFNGLBINDFRAMEBUFFERPROC bind_ = nullptr;
    PFNGLBLITFRAMEBUFFERPROC copy_ = nullptr;
};

/// Two for each cell of a square of so many cells each way.
std::vector<std::array<std::uint32_t, 3>> trianglesOf(std::uint32_t cells) {
    std::vector<std::array<std::uint32_t, 3>> triangles;
    for (std::uint32_t j = 0; j < cells; ++j) {
        for (std::uint32_t i = 0; i < cells; ++i) {
            const std::uint32_t a = j * (cells + 1) + i, c = a + cells + 2;
            triangles.push_back({a, a + 1, c});
            triangles.push_back({a, c, c - 1});
        }
    }
    return triangles;
}
std::vector<std::uint32_t> cornersOf(const std::vector<std::array<std::uint32_t, 3>>& triangles) {
    std::vector<std::uint32_t> corners;
    for (const auto& t : triangles) corners.insert(corners.end(), t.begin(), t.end());
    return corners;
}

void say(const char* what, double own, double mesa) {
    std::printf("%-58s %8.1f ms %8.1f ms %7.2f x\n", what, own, mesa, own / mesa);
}

void mesh() {
    constexpr std::uint32_t cells = 708; // 1 002 528 triangles
    FieldSamples samples;
    samples.values.resize(1);
    std::mt19937 random(1);
    std::uniform_real_distribution<double> shake(-0.3, 0.3);
    std::vector<float> points;
    std::vector<std::uint8_t> colours;
    for (std::uint32_t j = 0; j <= cells; ++j) {
        for (std::uint32_t i = 0; i <= cells; ++i) {
            const double x = (i + shake(random)) / cells, y = (j + shake(random)) / cells;
            const double z = std::sin(9 * x) * std::cos(7 * y);
            samples.x.push_back(x);
            samples.y.push_back(y);
            samples.values[0].push_back(z);
            points.insert(points.end(), {static_cast<float>(160 * x), static_cast<float>(100 * (1 - y)), 0.0F});
            colours.insert(colours.end(), {static_cast<std::uint8_t>(127 + 120 * z), 90, 60, 255});
        }
    }
    samples.triangles = trianglesOf(cells);
    const std::vector<std::uint32_t> corners = cornersOf(samples.triangles);
    Frame frame;
    frame.rect = {0, 0, 160, 100};
    frame.map = {{ScaleKind::Linear, 0, 1, 160}, {ScaleKind::Linear, 0, 1, 100}};
    frame.colour = {ScaleKind::Linear, -1, 1, 1};
    Mesa mesa(0);
    if (!mesa.isThere) return;
    const auto [own, theirs] = leastTimes([&] { fieldImage(samples, FieldFill::Smooth, frame, width / 160.0); },
                                          [&] { mesa.draw(points, colours, corners, false); });
    say("a mesh of a million triangles by colours at 1280 x 800", own, theirs);
    if (mesa.painted() < static_cast<std::size_t>(width) * height / 2) std::printf("OSMesa has not drawn it\n");
}

void surface() {
    constexpr std::uint32_t cells = 1000;
    Faces faces;
    std::vector<float> points;
    std::vector<std::uint8_t> colours;
    for (std::uint32_t j = 0; j <= cells; ++j) {
        for (std::uint32_t i = 0; i <= cells; ++i) {
            const double x = i / 500.0 - 1, y = j / 500.0 - 1, z = std::exp(-3 * (x * x + y * y));
            faces.points.push_back({80 + 50 * (x - 0.4 * y), 50 + 25 * (y - 1.2 * z + 0.3 * x), 10 * z - y});
            faces.place.push_back(static_cast<float>(z));
            const SeenPoint& p = faces.points.back();
            points.insert(points.end(),
                          {static_cast<float>(p.x), static_cast<float>(p.y), static_cast<float>(p.towards)});
            colours.insert(colours.end(), {static_cast<std::uint8_t>(255 * z), 0, 0, 255});
        }
    }
    faces.triangles = trianglesOf(cells);
    const std::vector<std::uint32_t> corners = cornersOf(faces.triangles);
    for (int i = 0; i < 256; ++i) faces.colours.push_back({static_cast<std::uint8_t>(i), 0, 0});
    const std::vector<Faces> surfaces{faces};
    Mesa mesa(4);
    if (!mesa.isThere) return;
    const auto [own, theirs] = leastTimes(
        [&] {
            SurfaceRaster raster({0, 0, 160, 100}, width / 160.0);
            raster.paint(surfaces);
        },
        [&] { mesa.draw(points, colours, corners, true); });
    char what[100];
    std::snprintf(what, sizeof what, "a surface of a million cells, 4 samples a dot (theirs: %d)", mesa.samplesThere);
    say(what, own, theirs);
    if (mesa.painted() < 10'000) std::printf("OSMesa has not drawn it\n");
}

} // namespace

int main() {
    std::printf("%-58s %11s %11s\n", "", "Coulter", "OSMesa");
    mesh();
    surface();
    return 0;
}
