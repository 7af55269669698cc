#pragma once
#include "desktop/sampling_fields.h"
#include "desktop/sheet_view.h"

#include <QWidget>

class QPainter;
class QToolButton;

namespace coulter {

/// Under the sheet, aligned with the panel's x axis: where the samples of the selected curve or field lie, and where
/// its gaps, poles, jumps, domain edges, corners and filled points are. Dragging over a stretch asks for more points
/// there.
class SamplingRibbon : public QWidget {
    Q_OBJECT
public:
    SamplingRibbon(DocumentSession& session, SheetView& sheet, const LookSettings& look, QWidget* parent = nullptr);

    /// What stands at a place, in words; empty outside the panel.
    QString wordsAt(QPointF place) const;
    QString summary() const;
    QSize sizeHint() const override;
    /// Where a value of the curve's parameter stands, in the widget's coordinates, and back.
    double placeOf(double t) const;
    double parameterAt(double x) const;

signals:
    void tableWanted();

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;

private:
    /// The selected curve's samples, or the first curve's; null where a field is shown instead.
    const CurveSamples* samples() const;
    const Curve* curve() const;
    const FieldSamples* fieldSamples() const;
    const Field* field() const;
    std::size_t curveIndex() const;
    AxisMap along() const; ///< the parameter over the panel's width
    void placeFields();
    QString curveWordsAt(double x) const;
    QString fieldWordsAt(QPointF place) const;
    QString curveSummary(const CurveSamples& curve) const;
    QString fieldSummary(const FieldSamples& field) const;
    void paintCurve(QPainter& painter, const CurveSamples& curve) const;
    void paintField(QPainter& painter, const FieldSamples& field) const;
    void setFiner(const std::vector<FinerStretch>& finer, const QString& what);

    struct Lanes {
        double top, bottom, lane, laneHeight;
    };
    Lanes lanes() const;
    /// Of a field: the lane of its horizontal variable (0) or of the other (1).
    QRectF fieldLane(std::size_t k) const;

    DocumentSession& session_;
    SheetView& sheet_;
    const LookSettings& look_;
    SamplingFields* fields_;
    QToolButton* table_;
    std::optional<std::pair<double, double>> dragged_; ///< in the widget's coordinates
};

} // namespace coulter
