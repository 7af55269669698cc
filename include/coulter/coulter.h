#pragma once
#include <cstddef>
#include <functional>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

/// The core of Coulter as a library: pages of formulas and what they are worth, functions to be evaluated in bulk, and
/// figures as bytes that rebuild from the recipe inside them. It needs neither a window nor Qt.
///
///   find_package(Coulter REQUIRED)
///   target_link_libraries(program PRIVATE Coulter::coulter)
///
/// Everything here is a value: copies are cheap, nothing is changed behind anybody's back, and any thread may use any
/// object. What a person can do wrong is no exception but a `Problem`, with its place, one sentence and a way out.
/// Only `std::bad_alloc` is thrown.
namespace coulter::api {

/// What is wrong, or worth knowing.
struct Problem {
    int line = -1;            ///< of the page, from 0; −1: of none
    int first = 0, last = 0;  ///< characters there, from 1; 0: no place
    bool isNote = false;      ///< worth knowing, and nothing is wrong
    std::string sentence;     ///< one, in English
    std::string suggestion;   ///< a way out; may be empty
    std::string text() const; ///< "line 3, character 7: … — …"
};

/// A value, or the problems that there is none. Notes may come with a value.
template <class T> struct Result {
    std::optional<T> value;
    std::vector<Problem> problems;
    explicit operator bool() const { return value.has_value(); }
    const T& operator*() const { return *value; }
    const T* operator->() const { return &*value; }
};

/// What an expression is worth.
struct Value {
    std::vector<double> numbers; ///< one; the components of a vector; the rows of a column; the places that a search
                                 ///< found, ascending. NaN where it is undefined
    std::vector<double> errors;  ///< of each number, a bound of its absolute error; infinite where none is known; of a
                                 ///< column or a search: empty
    bool isEstimated = false;    ///< the errors rest on estimates of integrals or series, and are no bounds
    bool isProven = false;       ///< of a search: these are all places, by proof
    std::string text;            ///< as `coulter value --error` prints it
};

/// A formula of some variables, compiled. Values follow IEEE 754: an undefined place gives NaN.
class Function {
public:
    std::size_t inputCount() const;  ///< variables
    std::size_t outputCount() const; ///< 1, or the components of a vector
    /// outputs[k][i] is the k-th component at (inputs[0][i], inputs[1][i], …), for i < count. The values do not depend
    /// on how many are asked for at once, nor on the number of threads.
    /// @param inputs,outputs  as many arrays of `count` numbers as there are inputs and outputs
    void operator()(std::span<const double* const> inputs, std::span<double* const> outputs, std::size_t count) const;
    /// Of one variable and one component.
    double operator()(double x) const;

private:
    friend class Page;
    struct Inside;
    std::shared_ptr<const Inside> inside_;
};

/// A page of formulas, in the notation of docs/notation.md: an unordered list of definitions.
class Page {
public:
    /// @param lines   such as "f(x) = sin(x)/x" and "x in [0, 10]"
    /// @param folder  in which files that lines name are looked for, such as (t, s) from "readings.csv"; empty: none is
    ///                read
    explicit Page(std::vector<std::string> lines, const std::string& folder = "");

    /// All problems and notes of its lines. A line with a problem does not keep others from being worth something.
    std::vector<Problem> problems() const;
    /// "sin(1)", "f(2)", "f(x) = 0 for x in [1, 10]", "mean(s)".
    Result<Value> value(std::string_view expression) const;
    /// A formula of variables that are given later, such as "f(x) + y" of x and y.
    Result<Function> function(std::string_view expression, const std::vector<std::string>& variables) const;
    std::vector<std::string> lines() const;

private:
    friend class Figure;
    struct Inside;
    std::shared_ptr<const Inside> inside_;
};

/// The points that a plot is drawn with, as a table.
struct Samples {
    std::vector<std::string> names;           ///< of the columns: "stretch", "x", "y"; see docs/command-line.md
    std::vector<std::vector<double>> columns; ///< of one length
    std::vector<std::string> states;          ///< of each row of a curve: "proven", "held", …; of others empty
    bool isFinished = true;                   ///< false if they are coarser than was asked for
    std::string report;                       ///< counts, what is proven, gaps: JSON
};

/// What a careful referee would point out.
struct Remark {
    Problem said;
    std::string remedy; ///< what would mend it, as an order; may be empty
};

/// How a figure is made.
struct Making {
    bool isPatient = false;               ///< however long it takes; else what costs too much is drawn more coarsely
    std::function<bool()> isStopped = {}; ///< asked now and then, from any thread: whether to give up
};

/// A figure: a page, panels with plots, and how they look, as a recipe has it (docs/recipe.md).
class Figure {
public:
    /// An empty sheet over a page.
    explicit Figure(const Page& page);
    /// @param text    a recipe, or the bytes of a figure that was exported
    /// @param folder  of files that its page names; empty: none is read
    static Result<Figure> read(std::string_view text, const std::string& folder = "");
    /// The same from a file; files that its page names are looked for beside it.
    static Result<Figure> load(const std::string& path);

    /// A further plot in the first panel: kind "line", "heatmap", … (`coulter kinds`), of "f(x)", …
    Result<Figure> with(const std::string& kind, const std::string& of) const;
    /// Another value: of a quantity of the page ("q" to "1.5"), or of a setting by its path ("sheet.width" to "90",
    /// "panels[0].y.scale" to "logarithmic").
    Result<Figure> withValue(const std::string& name, const std::string& value) const;

    std::string recipe() const;
    /// What keeps plots and lines from being drawn.
    std::vector<Problem> problems() const;
    std::vector<Remark> remarks(const Making& making = {}) const;
    /// Of one plot, as this figure draws it.
    /// @param panel,plot  from 0
    /// @param member      of a family, from 0
    Result<Samples> samples(std::size_t panel, std::size_t plot, std::size_t member = 0,
                            const Making& making = {}) const;
    /// The figure as a file of a format ("pdf", "svg", "png", "tiff", "eps") with its recipe inside. Equal recipes give
    /// equal bytes.
    Result<std::string> bytes(const std::string& format, const Making& making = {}) const;

    /// Rebuilds an exported figure from the recipe inside it: no problem if every byte is the same.
    static std::vector<Problem> verify(std::string_view bytes, const std::string& folder = "");

private:
    struct Inside;
    std::shared_ptr<const Inside> inside_;
};

/// "0.1.0".
std::string version();

} // namespace coulter::api
