#pragma once
#include "desktop/examples.h"
#include "desktop/little_pictures.h"
#include "desktop/look.h"
#include "typeset/math.h"

#include <QAbstractButton>
#include <QWidget>

class QVBoxLayout;

namespace coulter {

/// A line of a page that can be clicked: typeset, and beside it as it is typed.
class FormulaLink : public QAbstractButton {
    Q_OBJECT
public:
    FormulaLink(const QString& line, const LookSettings& look, QWidget* parent = nullptr);
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    const LookSettings& look_;
    MathPtr math_; ///< the line as the page reads it
};

/// What stands where the figure will be while nothing is written: what can be typed, examples, and recent documents.
class StartSheet : public QWidget {
    Q_OBJECT
public:
    explicit StartSheet(const LookSettings& look, QWidget* parent = nullptr);

    /// The lines that are offered.
    static QStringList lines();

signals:
    void lineWanted(const QString& line);
    void exampleWanted(const QString& name);
    void examplesWanted(); ///< all of them
    void fileWanted(const QString& path);
    void openWanted();
    void dataWanted();

protected:
    void showEvent(QShowEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    bool eventFilter(QObject* object, QEvent* event) override; ///< it takes all the room of its parent

private:
    void addRecent();
    const LookSettings& look_;
    QVBoxLayout* recent_;
    std::vector<QAbstractButton*> pictures_;
    LittlePictures drawer_;
    bool isDrawn_ = false;
};

} // namespace coulter
