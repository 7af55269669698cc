#pragma once
#include "desktop/look.h"
#include "drawing/scene.h"
#include "formula/page/page.h"

#include <QLabel>
#include <QPlainTextEdit>
#include <QPointer>
#include <QWidget>

namespace coulter {

class NameCompletion;

/// A formula line while it is being edited: its plain spelling, the typeset reading below, and what is wrong with it,
/// underlined at the very character.
class LineEditor : public QWidget {
    Q_OBJECT
public:
    explicit LineEditor(const LookSettings& look, QWidget* parent = nullptr);

    void begin(const QString& text, int cursor);
    /// Puts text in at the caret.
    void insert(const QString& text);
    QString text() const;
    /// What the page makes of the text as it stands.
    void showReading(const Line& line);
    /// Offers names that go on from what stands before the caret.
    void offerNames(const Page& page);
    /// Height that it needs at its present content.
    int wantedHeight() const;

signals:
    void edited(const QString& text);
    void committed();     ///< and on to the next line
    void takenOnly();     ///< and no further
    void remedyWanted();  ///< what is offered for the problem
    void leftBackwards(); ///< by Backspace on an empty line
    void severalPasted(const QStringList& lines);
    void cancelled();
    void leftUpwards();
    void leftDownwards();
    void sizeChanged();

protected:
    bool eventFilter(QObject* object, QEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void hideEvent(QHideEvent* event) override;

private:
    int fieldHeight() const;
    void place();
    const LookSettings& look_;
    QPlainTextEdit* field_;
    QLabel* message_;
    bool hasRemedy_ = false;
    QPointer<NameCompletion> completion_; ///< lives in the window, over its other panes
    QImage reading_;
    double readingHeight_ = 0;
};

/// Draws typeset mathematics for the window: pixels on the given ground.
/// @param dotsPerMm  of the device; `size` is mm of one em at that scale
QImage paintBox(const Box& box, double dotsPerMm, const Look& look, const QColor& ground);

/// Adds a box to a scene with the window's colour for each of its inks.
void addInked(Scene& scene, const Box& box, double x, double y, const Look& look);

/// Pixels of the screen for one mm at the interface scale 1.
inline constexpr double screenDots = 96 / 25.4;
/// Size of formulas in the window, mm of one em.
inline constexpr double formulaSize = 4.4;

} // namespace coulter
