#pragma once
#include "desktop/document_session.h"
#include "desktop/figure_worker.h"
#include "desktop/look.h"

#include <QLineEdit>
#include <QWidget>
#include <optional>

namespace coulter {

/// The sheet at its place on the desk, with rulers. What it shows are the pixels that export would write.
class SheetView : public QWidget {
    Q_OBJECT
public:
    SheetView(DocumentSession& session, FigureWorker& worker, const LookSettings& look, QWidget* parent = nullptr);

    const ShownFigure* figure() const { return figure_.get(); }
    std::shared_ptr<const ShownFigure> sharedFigure() const { return figure_; }
    /// Why what is shown is not up to date; empty if it is.
    const QString& waitsFor() const { return waitsFor_; }
    /// What is selected; the sheet as a whole if nothing else is.
    const ItemPath& selection() const { return selection_; }
    void select(const ItemPath& path);
    /// What ribbon and table show: the plot that is selected, else the first of the panel. Null if nothing is drawn.
    const Drawn* shownPlot() const;
    /// The panel of the figure that the selection is in; null without a figure.
    const PanelFigure* shownPanel() const;
    /// The document to be changed by someone who points at an item of the figure; none if the figure is an old one in
    /// which the item was another.
    std::optional<Document> editable(const ItemPath& path) const;

    /// Places on the sheet (mm) in the widget's coordinates, and back.
    QPointF toWidget(Point mm) const;
    Point toSheet(QPointF position) const;
    QRectF panelRect() const; ///< of the panel that the selection is in, in the widget's coordinates; empty without one
    QString readOut() const { return readOut_; }

    void zoom(std::size_t panel, double factor, Point about, bool horizontal, bool vertical, const QString& mergeKey);
    void restoreView(std::size_t panel, bool horizontal, bool vertical);
    void editText(const ItemPath& path);
    /// Draws the selected plot in the next kind that fits its formula, or in the one before.
    void changeKind(int step);
    /// Draws what is shown however long it takes, until the document changes.
    void goOn();
    bool isPatient() const { return patient_; }
    /// While held, the automatic range of the vertical scale grows where it must but never shrinks.
    void holdRange(bool held);

signals:
    void selectionChanged();
    void figureChanged();
    void drawAsWanted(const ItemPath& path); ///< the selected plot, in another way

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
    double fitOf(const Sheet& sheet) const;
    void updateReadOut(Point mm);
    bool showsSpace(std::size_t panel) const;
    /// Another direction to look from; degrees.
    void turn(std::size_t panel, double azimuth, double elevation, const View& from, const QString& mergeKey);
    void pan(std::size_t panel, double dx, double dy, bool horizontal, bool vertical, const QString& mergeKey);
    void setLimits(std::size_t panel, std::optional<Limits> x, std::optional<Limits> y, const QString& what,
                   const QString& mergeKey);
    void removeSelected();
    /// Selects the next thing drawn in the panel, or the one before.
    void selectNeighbour(int step);
    void paintRulers(QPainter& painter) const;
    void finishText(bool take);

    /// A handle of the selected plot under the pointer.
    struct Held {
        std::size_t handle = 0;
        bool across = true, up = true; ///< which ways it can be dragged
    };
    std::optional<Held> handleAt(Point mm) const;
    void dragHandle(std::size_t handle, Point to);

    struct Drag {
        ItemPath path;
        QPointF start;
        PanelMap map; ///< when it began, as the two below
        bool leftwards = false, downwards = false;
        View view;
        std::array<double, 2> legendAt{};
        bool moved = false;
        std::optional<Held> held = {};
    };

    DocumentSession& session_;
    FigureWorker& worker_;
    const LookSettings& look_;
    std::shared_ptr<const ShownFigure> figure_;
    QString waitsFor_;
    ItemPath selection_;
    std::optional<Drag> drag_;
    bool patient_ = false;
    bool rangeHeld_ = false;
    QString readOut_;
    std::optional<Point> marker_; ///< where the read-out snapped to, mm
    QPointF pointer_;
    QLineEdit* textField_;
    std::optional<ItemPath> textPath_;
};

} // namespace coulter
