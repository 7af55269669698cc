#pragma once
#include "desktop/document_session.h"
#include "desktop/line_editor.h"
#include "drawing/scene.h"
#include "formula/page/page.h"
#include "typeset/math.h"

#include <QAbstractScrollArea>
#include <optional>
#include <set>

namespace coulter {

using TypesetBox = Box; ///< within a QFrame the short name means a kind of frame

/// The formula page: typeset like a paper, lines edited in place, numbers of quantities changed by dragging them.
class FormulaPage : public QAbstractScrollArea {
    Q_OBJECT
public:
    FormulaPage(DocumentSession& session, const LookSettings& look, QWidget* parent = nullptr);

    /// Opens a line for editing; the page's length opens a new line at its end.
    void editLine(int index, int cursor = -1);
    /// Opens an empty line below the selected one, or at the end.
    void addLine(const QString& text = {});
    /// Puts text in where the caret is, or on a new line.
    void insertText(const QString& text);
    bool isEditing() const { return editing_ >= 0; }
    /// Takes over what is being typed, if anything is.
    void commitEditing();
    int selectedLine() const { return selected_; }
    /// Selected lines to the clipboard, and away.
    void copyLines() const;
    void removeLines(const QString& what);
    /// Selects a line; `extending` selects all from the one selected before up to it.
    void selectLine(int index, bool extending = false);
    /// Hides the lines below a line of prose up to the next one, or shows them again.
    void fold(int line, bool folded);
    bool isFolded(int line) const;

    /// Where the number of a quantity's line stands, in the viewport's coordinates; empty if it has none that can be
    /// dragged.
    QRect numberRect(int line) const;
    QRect lineRect(int line) const;

signals:
    /// A quantity is being dragged, or no longer.
    void scrubbing(bool on);
    void lineSelected(int index);
    void runWanted(int line);              ///< of a quantity, to and fro; or an end of it, where it runs
    void runEndWanted(bool keep);          ///< if something runs
    void tablePasted(const QString& text); ///< rows of cells, as a spreadsheet copies them
    void menuWanted(const QPoint& at);     ///< of the selected line; a place of the screen

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void scrollContentsBy(int dx, int dy) override;

private:
    struct Row {
        int line = -1;
        double top = 0, height = 0; ///< px in the content
        double baseline = 0;
        double left = 0;               ///< px
        std::vector<TypesetBox> boxes; ///< one below the other, for wrapped prose and broken formulas
        std::vector<double> drops;     ///< of each box's baseline below the first, mm
        double hanging = 0;            ///< mm by which the boxes after the first stand further right
        Extent number;                 ///< of what can be dragged, mm in the first box
        TypesetBox before;             ///< "where"
        TypesetBox after;              ///< equation number at the right edge
        TypesetBox aside;              ///< the label clause
        TypesetBox problem;            ///< one sentence below
    };
    struct Press { ///< of the mouse on a line, which becomes a click or a move of the line
        int line = -1;
        QPoint at;
        bool moving = false;
    };
    struct Scrub {
        int line = -1;
        std::string name;
        std::string number;
        std::optional<Interval> range;
        double startX = 0;
        bool fine = false;
    };

    void follow();
    void rebuild();
    Row makeRow(int index, double width, int& equation, bool& afterEquation) const;
    std::vector<TypesetBox> wrapped(const std::string& text, double width, Ink ink, double size) const;
    /// A formula wider than the page, broken before the terms of its sum, and before what it is worth, if that is
    /// shown.
    std::vector<TypesetBox> broken(const Line& line, const MathPtr& worth, double room, double hanging) const;
    void placeEditor();
    void typed(const QString& text);
    /// Ends editing; returns the place below the line and what came with it, such as the variable of a new function.
    int finishEditing(bool take);
    /// Opens a line that is not yet there.
    void editNewLine(int index, const QString& text = {});
    void begin(const QString& text, int cursor);
    /// The document with the line being edited as it is typed.
    Document withTyped(const std::string& text) const;
    void takeRemedy();
    void insertLines(const QStringList& lines, std::size_t at, const Document& document);
    void moveLines(int by);
    std::pair<int, int> selectedLines() const; ///< first and last; first > last: none
    std::vector<bool> hiddenLines() const;
    bool foldable(int line) const;
    void endPress(const QMouseEvent& event);
    int rowAt(int y) const;
    void stepNumber(int line, double steps, bool fine);
    double dots() const;

    DocumentSession& session_;
    const LookSettings& look_;
    LineEditor* editor_;
    Document read_; ///< what the page was read from
    Page page_;
    std::vector<Row> rows_;
    double contentHeight_ = 0;
    int selected_ = -1;
    int anchor_ = -1;              ///< other end of what is selected
    std::set<std::string> folded_; ///< lines of prose whose block is hidden
    std::optional<Press> press_;
    int editing_ = -1;
    bool addsLine_ = false; ///< what is being edited is not yet a line of the document
    std::optional<Scrub> scrub_;
};

} // namespace coulter
