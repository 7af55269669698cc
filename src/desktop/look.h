#pragma once
#include "figure/document.h"

#include <QColor>
#include <QObject>

namespace coulter {

/// Colours and sizes of the window, light or dark, at the person's scale. The sheet itself stays paper.
struct Look {
    bool dark = false;
    double scale = 1;
    bool values = true; ///< behind the formulas of the page

    QColor ground() const; ///< behind everything
    QColor page() const;   ///< of the formula page and the side panes
    QColor ink() const;
    QColor muted() const;
    QColor hairline() const;
    QColor accent() const;      ///< the one accent
    QColor wrong() const;       ///< problems
    QColor faintAccent() const; ///< behind what is selected

    int px(double logical) const { return static_cast<int>(logical * scale + 0.5); }
};

/// The look of the running program: one for all its windows.
class LookSettings : public QObject {
    Q_OBJECT
public:
    explicit LookSettings(QObject* parent = nullptr);
    static LookSettings& ofProgram();
    const Look& look() const { return look_; }
    void setDark(bool dark);
    void showValues(bool shown);
    void changeScale(double factor); ///< 0 goes back to 1

signals:
    void changed();

private:
    void apply();
    QString styleSheet() const;
    Look look_;
    double basePointSize_;
};

Colour toColour(const QColor& colour);
QColor toQColor(Colour colour);

} // namespace coulter
