#pragma once
#include "desktop/document_session.h"
#include "desktop/figure_worker.h"
#include "desktop/look.h"

#include <QLineEdit>
#include <QWidget>
#include <optional>

namespace coulter {

/// What is selected on the sheet.
struct Selection {
    std::optional<Part> part; ///< none: the sheet as a whole
    std::size_t index = 0;    ///< of the curve
    friend bool operator==(const Selection&, const Selection&) = default;
};

/// The sheet at its place on the desk, with rulers. What it shows are the pixels that export would write.
class SheetView : public QWidget {
    Q_OBJECT
public:
    SheetView(DocumentSession& session, FigureWorker& worker, const LookSettings& look, QWidget* parent = nullptr);

    const ShownFigure* figure() const { return figure_.get(); }
    /// Why what is shown is not up to date; empty if it is.
    const QString& waitsFor() const { return waitsFor_; }
    const Selection& selection() const { return selection_; }
    void select(const Selection& selection);

    /// Places on the sheet (mm) in the widget's coordinates, and back.
    QPointF toWidget(Point mm) const;
    Point toSheet(QPointF position) const;
    QRectF panelRect() const; ///< of the panel, in the widget's coordinates; empty without a figure
    QString readOut() const { return readOut_; }

    void zoom(double factor, Point about, bool horizontal, bool vertical, const QString& mergeKey);
    void restoreView(bool horizontal, bool vertical);
    void editText(Part part);
    /// While held, the automatic range of the vertical scale grows where it must but never shrinks.
    void holdRange(bool held);

signals:
    void selectionChanged();
    void figureChanged();

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool eventFilter(QObject* object, QEvent* event) override;

private:
    static constexpr int rulerWidth = 20; ///< logical pixels
    static constexpr int deskMargin = 18; ///< round the paper

    void request();
    void take(std::shared_ptr<const ShownFigure> figure);
    QRectF paperRect() const;
    double fit() const; ///< widget pixels for one mm of the sheet
    const Target* targetAt(Point mm) const;
    void updateReadOut(Point mm);
    bool showsSpace() const;
    /// Another direction to look from; degrees.
    void turn(double azimuth, double elevation, const View& from, const QString& mergeKey);
    void pan(double dx, double dy, bool horizontal, bool vertical, const QString& mergeKey);
    void setLimits(std::optional<Limits> x, std::optional<Limits> y, const QString& what, const QString& mergeKey);
    void paintRulers(QPainter& painter) const;
    void finishText(bool take);

    struct Drag {
        Part part;
        QPointF start;
        PanelMap map; ///< when it began
        View view;
        std::array<double, 2> legendAt{};
        bool moved = false;
    };

    DocumentSession& session_;
    FigureWorker& worker_;
    const LookSettings& look_;
    std::shared_ptr<const ShownFigure> figure_;
    QString waitsFor_;
    Selection selection_;
    std::optional<Drag> drag_;
    bool rangeHeld_ = false;
    QString readOut_;
    std::optional<Point> marker_; ///< where the read-out snapped to, mm
    QPointF pointer_;
    QLineEdit* textField_;
    std::optional<Part> textPart_;
};

} // namespace coulter
