#pragma once
#include "desktop/sampling_fields.h"
#include "desktop/sheet_view.h"
#include "plots/telling.h"

#include <QWidget>

class QPainter;
class QToolButton;

namespace coulter {

/// Under the sheet, aligned with the panel's x axis: where the samples of what is selected lie along its variables,
/// what is proven, and where its special places are. Dragging over a stretch asks for more points there.
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
    const Drawn* drawn() const { return sheet_.shownPlot(); }
    Frame frame() const { return sheet_.shownPanel()->frameOf(*drawn()); }
    /// Made anew when the figure, the selection or the width changes.
    void refresh();
    void paintLane(QPainter& painter, std::size_t index) const;
    void paintBars(QPainter& painter, const Lane& lane) const;
    void paintSigns(QPainter& painter, const Lane& lane) const;
    double pixelsOf(double mm) const; ///< a place in mm along the panel, in the widget's coordinates
    void setFiner(const std::vector<FinerStretch>& finer, const QString& what);

    struct Heights {
        double top, bottom, lane, laneHeight;
    };
    Heights heights() const;
    /// Where one of the lanes is; a source with one variable has a single tall one.
    QRectF laneRect(std::size_t index) const;

    DocumentSession& session_;
    SheetView& sheet_;
    const LookSettings& look_;
    SamplingFields* fields_;
    std::vector<Lane> lanes_;
    QToolButton* table_;
    std::optional<std::pair<double, double>> dragged_; ///< in the widget's coordinates
};

} // namespace coulter
