#pragma once
#include "desktop/sheet_view.h"

#include <QWidget>

namespace coulter {

/// Under the sheet, aligned with the panel's x axis: where the samples of the selected curve lie, and where its gaps,
/// poles, jumps, domain edges and filled points are.
class SamplingRibbon : public QWidget {
    Q_OBJECT
public:
    SamplingRibbon(SheetView& sheet, const LookSettings& look, QWidget* parent = nullptr);

    /// What stands at a place, in words; empty outside the panel.
    QString wordsAt(double x) const;
    QString summary() const;
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;

private:
    /// The selected curve's samples, or the first curve's.
    const CurveSamples* samples() const;
    std::size_t curveIndex() const;
    SheetView& sheet_;
    const LookSettings& look_;
};

} // namespace coulter
