// How long the window's event loop pauses, and how soon Stop is obeyed, while a heavy integral is sampled.
#include "desktop/main_window.h"

#include <QApplication>
#include <QSettings>
#include <QStandardPaths>
#include <QTimer>
#include <algorithm>
#include <chrono>
#include <cstdio>
#include <vector>

using namespace coulter;
using Clock = std::chrono::steady_clock;

namespace {

double milliseconds(Clock::duration time) { return std::chrono::duration<double, std::milli>(time).count(); }

Document heavy(const std::string& amplitude) {
    Document document;
    document.page = {"f(x) = a int_0^(30 + x) J_0(k sin(k x)) dk", "a = " + amplitude, "x in [0, 10], count 20000"};
    document.panels[0].plots = {plotOf("f(x)")};
    return document;
}

/// Longest time between two turns of the event loop during some milliseconds, while `each` is done every 20.
double longestPause(double during, const std::function<void()>& each) {
    double longest = 0;
    const auto start = Clock::now();
    auto last = start, lastEdit = start;
    while (milliseconds(Clock::now() - start) < during) {
        if (milliseconds(Clock::now() - lastEdit) > 20) {
            lastEdit = Clock::now();
            each();
        }
        QApplication::processEvents(QEventLoop::AllEvents);
        const auto now = Clock::now();
        longest = std::max(longest, milliseconds(now - last));
        last = now;
    }
    return longest;
}

} // namespace

int main(int argc, char** argv) {
    if (qEnvironmentVariableIsEmpty("DISPLAY")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QStandardPaths::setTestModeEnabled(true);
    QApplication application(argc, argv);
    QApplication::setOrganizationName("coulter-bench");
    QSettings().clear();
    MainWindow window;
    window.show();
    window.openDemo();
    longestPause(500, [] {});
    const double idle = longestPause(1000, [] {});
    window.session().start(heavy("1"), "");
    longestPause(100, [] {});
    int step = 0;
    const double edited =
        longestPause(3000, [&] { window.session().edit(heavy(std::to_string(1 + 0.01 * ++step)), "change", "scrub"); });
    std::printf(
        "longest pause of the event loop: idle %.1f ms; while a heavy integral is changed 50 times a second %.1f ms\n",
        idle, edited);

    std::vector<double> times;
    for (int run = 0; run < 20; ++run) {
        FigureWorker worker;
        bool busy = true;
        QObject::connect(&worker, &FigureWorker::busyChanged, &worker, [&](bool now) { busy = now; });
        worker.request({heavy("1"), 8});
        const auto begin = Clock::now();
        while (milliseconds(Clock::now() - begin) < 40 + 17 * run) QApplication::processEvents();
        if (!busy) continue;
        const auto stopped = Clock::now();
        worker.stop();
        while (busy) QApplication::processEvents();
        times.push_back(milliseconds(Clock::now() - stopped));
    }
    if (times.empty()) return std::printf("nothing was slow enough to be stopped\n"), 1;
    std::ranges::sort(times);
    std::printf("Stop to stillness, %zu times: median %.1f ms, longest %.1f ms\n", times.size(),
                times[times.size() / 2], times.back());
}
