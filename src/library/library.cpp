// The public library over the folders of the core. See include/coulter/coulter.h.
#include "composition/draw_figure.h"
#include "composition/findings.h"
#include "coulter/coulter.h"
#include "coulter_version.h"
#include "data/attach_tables.h"
#include "files/export.h"
#include "files/file_access.h"
#include "files/recipe.h"
#include "files/samples_report.h"
#include "files/set_value.h"
#include "formula/base/text.h"
#include "formula/compile/compile.h"
#include "formula/lines/answer.h"
#include "formula/lines/answer_text.h"
#include "formula/lines/read_page.h"
#include "formula/notation/parser.h"
#include "formula/page/page.h"
#include "plots/plot_kind.h"
#include "plots/table.h"
#include "plots/telling.h"

#include <algorithm>
#include <atomic>
#include <chrono>
#include <cmath>
#include <filesystem>
#include <thread>

namespace coulter::api {
namespace {

Problem publicOf(const coulter::Problem& problem) {
    return {problem.line,     problem.first,     problem.last, problem.severity == coulter::Problem::Severity::Note,
            problem.sentence, problem.suggestion};
}

std::vector<Problem> publicOf(const Problems& problems) {
    std::vector<Problem> all;
    for (const coulter::Problem& problem : problems) all.push_back(publicOf(problem));
    return all;
}

template <class T> Result<T> refused(const coulter::Problem& problem) { return {std::nullopt, {publicOf(problem)}}; }
template <class T> Result<T> refused(std::string sentence, std::string suggestion = "") {
    coulter::Problem problem;
    problem.sentence = std::move(sentence);
    problem.suggestion = std::move(suggestion);
    return refused<T>(problem);
}

/// A stop that follows what the caller says, looked at every now and then.
class Stopping {
public:
    explicit Stopping(const Making& making) {
        if (!making.isStopped) return;
        watcher_ = std::jthread([this, stopped = making.isStopped](const std::stop_token& end) {
            constexpr auto pause = std::chrono::milliseconds(20);
            while (!end.stop_requested() && !source_.stop_requested()) {
                if (stopped()) source_.request_stop();
                std::this_thread::sleep_for(pause);
            }
        });
    }
    std::stop_token token() const { return source_.get_token(); }

private:
    std::stop_source source_;
    std::jthread watcher_;
};

Effort effortFor(const Document& document, const Making& making) {
    Effort effort = effortOf(document.sheet);
    if (making.isPatient) effort.operations = HUGE_VAL;
    return effort;
}

} // namespace

std::string Problem::text() const {
    coulter::Problem problem{line, first, last, sentence, suggestion};
    return describe(problem);
}

struct Function::Inside {
    std::shared_ptr<const Program> program;
};

std::size_t Function::inputCount() const { return inside_->program->inputCount; }
std::size_t Function::outputCount() const { return inside_->program->outputs.size(); }

void Function::operator()(std::span<const double* const> inputs, std::span<double* const> outputs,
                          std::size_t count) const {
    evaluateInParallel(*inside_->program, inputs, outputs, count);
}

double Function::operator()(double x) const {
    double y = std::nan("");
    const double* in = &x;
    double* out = &y;
    (*this)(std::span(&in, 1), std::span(&out, 1), 1);
    return y;
}

struct Page::Inside {
    Document document;
    coulter::Page page;
};

Page::Page(std::vector<std::string> lines, const std::string& folder) {
    auto inside = std::make_shared<Inside>();
    inside->document.page = std::move(lines);
    attachTables(inside->document, folder);
    inside->page = readPage(inside->document);
    inside_ = std::move(inside);
}

std::vector<Problem> Page::problems() const { return publicOf(inside_->page.problems()); }
std::vector<std::string> Page::lines() const { return inside_->document.page; }

Result<Value> Page::value(std::string_view expression) const {
    const Answer answer = evaluate(inside_->page, expression);
    Result<Value> result;
    result.problems = publicOf(answer.problems);
    if (std::ranges::any_of(result.problems, [](const Problem& problem) { return !problem.isNote; })) return result;
    Value value;
    value.numbers = answer.values;
    value.errors = answer.errors;
    value.isEstimated = answer.isEstimated || answer.isStandardError;
    for (const Column& column : answer.columns)
        value.numbers.insert(value.numbers.end(), column->begin(), column->end());
    if (answer.places) {
        value.isProven = answer.places->areAll();
        for (const FoundPlace& place : answer.places->found) value.numbers.push_back(place.at);
    }
    value.text = answerText(answer, true);
    result.value = std::move(value);
    return result;
}

Result<Function> Page::function(std::string_view expression, const std::vector<std::string>& variables) const {
    KnownNames names = inside_->page.names;
    for (const std::string& variable : variables) {
        names.values.insert(variable);
        names.functions.erase(variable);
    }
    const ParsedExpression parsed = parseExpression(decodeUtf8(expression), names);
    if (!parsed.expression) return {std::nullopt, publicOf(parsed.problems)};
    Compiled compiled = compile(inside_->page, parsed.expression, variables);
    if (!compiled.program) return {std::nullopt, publicOf(compiled.problems)};
    Function function;
    function.inside_ = std::make_shared<const Function::Inside>(Function::Inside{std::move(compiled.program)});
    return {std::move(function), {}};
}

struct Figure::Inside {
    Document document;
    std::string folder;
};

Figure::Figure(const Page& page) {
    auto inside = std::make_shared<Inside>();
    inside->document = page.inside_->document;
    inside_ = std::move(inside);
}

Result<Figure> Figure::read(std::string_view text, const std::string& folder) {
    const RecipeFound found = findRecipe(std::string(text));
    if (!found.recipe) return refused<Figure>(found.problem);
    RecipeRead read = readRecipe(*found.recipe);
    if (!read.document) return refused<Figure>(read.problem);
    attachTables(*read.document, folder);
    Figure figure(Page(std::vector<std::string>{}));
    figure.inside_ = std::make_shared<const Inside>(Inside{std::move(*read.document), folder});
    return {std::move(figure), {}};
}

Result<Figure> Figure::load(const std::string& path) {
    const FileRead file = readFile(path);
    if (!file.bytes) return refused<Figure>(file.problem);
    const std::string folder = std::filesystem::path(path).parent_path().string();
    return read(*file.bytes, folder.empty() ? "." : folder);
}

Result<Figure> Figure::with(const std::string& kind, const std::string& of) const {
    if (!findPlotKind(kind))
        return refused<Figure>("There is no kind of plot “" + kind + "”.", "one of " + plotKindNames());
    auto inside = std::make_shared<Inside>(*inside_);
    inside->document.panels.front().plots.push_back(plotOf(of, kind));
    Figure figure = *this;
    figure.inside_ = std::move(inside);
    return {std::move(figure), {}};
}

Result<Figure> Figure::withValue(const std::string& name, const std::string& value) const {
    RecipeRead changed = withNamedValue(inside_->document, name, value);
    if (!changed.document) return refused<Figure>(changed.problem);
    Figure figure = *this;
    figure.inside_ = std::make_shared<const Inside>(Inside{std::move(*changed.document), inside_->folder});
    return {std::move(figure), {}};
}

std::string Figure::recipe() const { return writeRecipe(inside_->document); }

std::vector<Problem> Figure::problems() const {
    const coulter::Page page = readPage(inside_->document);
    std::vector<Problem> all = publicOf(page.problems());
    for (const Panel& panel : inside_->document.panels) {
        for (const Problems& each : readPlots(page, panel).problems) {
            for (const Problem& problem : publicOf(each)) all.push_back(problem);
        }
    }
    return all;
}

std::vector<Remark> Figure::remarks(const Making& making) const {
    const Stopping stopping(making);
    std::vector<Remark> all;
    const coulter::Figure figure =
        drawFigure(inside_->document, effortFor(inside_->document, making), stopping.token());
    for (const Finding& finding : findingsOf(figure)) all.push_back({publicOf(finding.said), finding.remedy});
    return all;
}

Result<Samples> Figure::samples(std::size_t panel, std::size_t plot, std::size_t member, const Making& making) const {
    const Document& document = inside_->document;
    if (panel >= document.panels.size() || plot >= document.panels[panel].plots.size())
        return refused<Samples>("The figure has no such plot.");
    const Stopping stopping(making);
    const coulter::Figure figure = drawFigure(document, effortFor(document, making), stopping.token());
    if (stopping.token().stop_requested()) return refused<Samples>("It was stopped.");
    const PanelFigure& drawnPanel = figure.panels[panel];
    if (!drawnPanel.problems[plot].empty()) return {std::nullopt, publicOf(drawnPanel.problems[plot])};
    std::vector<const Drawn*> members;
    for (const Drawn& drawn : drawnPanel.drawn) {
        if (drawn.path.index == plot) members.push_back(&drawn);
    }
    if (member >= members.size())
        return refused<Samples>("The plot has " + std::to_string(members.size()) + " members.");
    const Drawn& drawn = *members[member];
    const Frame frame = drawnPanel.frameOf(drawn);
    const SampleTable table = tableOf(drawn, frame);
    Samples samples;
    samples.names = table.columns;
    for (std::size_t k = 0; k < table.columns.size(); ++k) {
        std::vector<double>& column = samples.columns.emplace_back();
        if (samples.names[k] == "state") continue;
        column.reserve(table.rows);
        for (std::size_t row = 0; row < table.rows; ++row) column.push_back(table.number(row, k));
    }
    if (!samples.names.empty() && samples.names.back() == "state") { // words, not numbers
        samples.names.pop_back();
        samples.columns.pop_back();
    }
    for (std::size_t row = 0; table.state && row < table.rows; ++row) samples.states.emplace_back(table.state(row));
    samples.isFinished = isFinished(drawn);
    samples.report = samplesReport(drawn, frame);
    return {std::move(samples), {}};
}

Result<std::string> Figure::bytes(const std::string& format, const Making& making) const {
    const ExportFormat* known = findFormat(format);
    if (!known) return refused<std::string>("The format “" + format + "” is not known.", formatNames());
    const Stopping stopping(making);
    Exported exported = exportFigure(inside_->document, *known, stopping.token(), {making.isPatient, {}});
    if (!exported.bytes) return refused<std::string>(exported.problem);
    Result<std::string> result{std::move(exported.bytes), {}};
    if (exported.unfinished) {
        result.problems.push_back(publicOf(*exported.unfinished));
        result.problems.back().isNote = true;
    }
    return result;
}

std::vector<Problem> Figure::verify(std::string_view bytes, const std::string& folder) {
    ExportOptions options;
    options.folder = folder;
    const auto problem = verifyFigure(std::string(bytes), {}, options);
    return problem ? std::vector{publicOf(*problem)} : std::vector<Problem>{};
}

std::string version() { return COULTER_VERSION; }

} // namespace coulter::api
