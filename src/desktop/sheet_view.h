#pragma once
#include "desktop/document_session.h"
#include "desktop/figure_worker.h"
#include "desktop/look.h"
#include "desktop/other_eyes.h"
#include "figure/panel_grid.h"
#include "plots/profile.h"

#include <QLineEdit>
#include <QToolButton>
#include <QWidget>
#include <optional>

class QMenu;

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

    /// Zooms what a part of the sheet shows: one scale of a panel, or all that a panel has.
    void zoom(const ItemPath& part, double factor, Point about, const QString& mergeKey);
    /// Back to automatic limits, of one scale or of all.
    void restoreView(const ItemPath& part);
    void editText(const ItemPath& path);
    /// Where the entries of legends are, of plots and of members of families.
    std::vector<Hit> legendEntries() const;
    /// Renames a plot in its legend; an empty name is derived again.
    void editName(const Hit& entry);
    /// Panels whose scale of this number is the same one.
    std::vector<std::size_t> sharing(std::size_t panel, std::size_t scale) const;
    /// What a new panel shows.
    enum class NewPanel : std::uint8_t { Empty, Copy, Differences };
    /// @param split  within the room that the panel has, else in a new row or column
    void addPanel(std::size_t panel, Side side, NewPanel content, bool split);
    void removePanel(std::size_t panel);
    /// What can be done with a panel.
    void fillPanelMenu(QMenu& menu, std::size_t panel);
    /// The small square at a panel's corner that it is dragged by, mm.
    Rect gripOf(std::size_t panel) const;
    /// The next press on the sheet places a note of this kind; Enter places it in the middle of the panel.
    void placeNote(const std::string& kind);
    void fillNoteMenu(QMenu& menu);
    void copyNote(const ItemPath& path);
    void removeNote(const ItemPath& path);
    /// A note as it is shown; null if it is not.
    const DrawnNote* drawnNote(const ItemPath& path) const;
    /// Where a note is taken by hand: its places, then where it is turned; mm.
    std::vector<Point> noteHandles(const DrawnNote& note) const;
    /// Whether a line is selected along which a field is looked at, and the panel of it below.
    bool showsProfile() const { return profileShown().has_value(); }
    /// Keeps that profile as a plot in a panel of its own.
    void keepProfile();
    /// Draws the selected plot in the next kind that fits its formula, or in the one before.
    void changeKind(int step);
    /// Draws what is shown however long it takes, until the document changes.
    void goOn();
    bool isPatient() const { return patient_; }
    /// The sheet as others see it: a look at it, which is neither kept in the recipe nor exported.
    void showFor(Eyes eyes);
    Eyes shownFor() const { return eyes_; }
    /// While held, the automatic range of the vertical scale grows where it must but never shrinks.
    void holdRange(bool held);

signals:
    void selectionChanged();
    void figureChanged();
    void drawAsWanted(const ItemPath& path); ///< the selected plot, in another way
    void mapsWanted(std::size_t panel);      ///< another colour map
    void textPasted(const QString& text);    ///< what may be a table
    void refused(const QString& sentence);   ///< what was asked for cannot be done

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
    void contextMenuEvent(QContextMenuEvent* event) override;
    bool event(QEvent* event) override;
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
    /// Moves what a part shows by so many mm, from where a frame had it.
    void pan(const ItemPath& part, const Frame& from, double right, double down, const QString& mergeKey);
    void arrowKey(const QKeyEvent& event);
    /// Limits of scales of a panel, by their number in item paths; of those that are shared, for all that share them.
    using WantedLimits = std::vector<std::pair<std::size_t, Limits>>;
    /// With the other scales of the panel held as they are: an automatic one would follow what is in view.
    WantedLimits withOthers(const ItemPath& part, const Frame& from, WantedLimits limits) const;
    void setLimits(std::size_t panel, const WantedLimits& limits, const QString& what, const QString& mergeKey);
    /// The scales that a part of the sheet stands for.
    std::vector<std::size_t> scalesOf(const ItemPath& part) const;
    void selectPanel(std::size_t panel, Side side); ///< the one next to it
    void splitPanel(std::size_t panel, Side side);
    void movePanel(std::size_t panel, Side side);
    std::optional<std::size_t> panelRoomAt(Point mm) const;
    /// Between two columns or rows of panels.
    struct Border {
        bool isUpright = true;
        std::size_t index = 0; ///< of the column or row before it
    };
    /// A row of a table, where it is drawn.
    struct ReadingAt {
        std::string table;
        std::size_t row = 0;
    };
    std::optional<ReadingAt> readingAt(Point mm) const;
    /// Leaves it out, or lets it count again.
    void fillReadingMenu(QMenu& menu, const ReadingAt& reading);
    std::optional<Border> borderAt(Point mm) const;
    void dragBorder(const Border& border, const Document& from, double mm);
    void dropPanel(std::size_t panel, Point mm);
    Rect dropRect(Point mm) const; ///< that a panel dragged to a place would take
    bool pressOnPanels(Point mm, QPointF position);
    ItemPath addNote(const std::string& kind, std::size_t panel, Point mm, bool atPoint);
    std::optional<std::size_t> noteHandleAt(Point mm) const; ///< of the selected note
    NotePlace placeOnCurve(const Note& note, std::size_t panel, Point mm) const;
    /// A place of the sheet, or one in line with another note.
    Point snapped(Point mm, const ItemPath& of, bool snaps);
    void setNotePlace(const ItemPath& path, std::size_t index, Point mm);
    void moveNote(const ItemPath& path, const std::vector<Point>& from, Point by, const QString& mergeKey);
    bool pressOnNotes(Point mm, QPointF position);
    void moveCorner(Point mm);
    void finishCorners();
    bool noteKey(const QKeyEvent& event);
    void paintNoteMarks(QPainter& painter) const;
    void removeSelected();
    /// Selects the next thing drawn in the panel, or the one before.
    void selectNeighbour(int step);
    void paintMoved(QPainter& painter, const QImage& image) const;
    void paintRulers(QPainter& painter) const;
    void paintPanelMarks(QPainter& painter) const; ///< the grip of the panel under the pointer, and where it would go
    void showTextField(const std::string& text, const Rect& over);
    void finishText(bool take);
    /// Moves the entries of the selected plot in the legend: −1 before those of the one before, 1 behind the next.
    void moveEntry(int by);
    void finishName(const ItemPath& path, Document document, const std::string& name);

    /// A handle of the selected plot under the pointer.
    struct Held {
        std::size_t handle = 0;
        bool across = true, up = true; ///< which ways it can be dragged
    };
    std::optional<Held> handleAt(Point mm) const;
    void dragHandle(std::size_t handle, Point to);

    /// What of a colour bar is under the pointer: a level of a plot, an end of its range, or what lies between.
    struct OnBar {
        enum class Part : std::uint8_t { Between, Low, High, Level };
        std::size_t panel = 0;
        Part part = Part::Between;
        ItemPath plot;                                  ///< that has the level
        std::size_t level = 0;                          ///< its number, from 0
        std::shared_ptr<const ShownFigure> figure = {}; ///< in which that is
    };
    std::optional<OnBar> barAt(Point mm) const;
    QString wordsAt(const OnBar& on, Point mm) const; ///< the value there
    void dragOnBar(const OnBar& on, Point from, Point to);
    void doubleClickOnBar(const OnBar& on, Point mm);
    void setColourLimits(std::size_t panel, const AxisLimits& limits, const QString& what, const QString& mergeKey);
    /// The plot of a panel whose levels are seen and changed on its colour bar; null if none has some.
    const Drawn* levelledPlot(const PanelFigure& panel) const;
    /// Levels, and how the values are spread, beside a bar that is pointed at or selected.
    void paintBarMarks(QPainter& painter) const;

    /// A line that is selected, and the field under it.
    struct ProfileShown {
        std::size_t panel = 0;
        const DrawnNote* line = nullptr;
        const Drawn* field = nullptr;
    };
    std::optional<ProfileShown> profileShown() const;
    QRectF profileRect() const; ///< where it is shown, in the widget's coordinates
    void paintProfile(QPainter& painter) const;
    void placeProfileButton();
    /// The values along the line as it was last, so that they are not computed with each picture of the window.
    struct ProfileKept {
        std::shared_ptr<const ShownFigure> figure;
        std::array<std::array<double, 2>, 2> ends{};
        Profile profile;
    };
    const Profile& profileOf(const ProfileShown& shown) const;
    mutable ProfileKept profile_;

    struct Drag {
        ItemPath path;
        QPointF start;
        Frame frame; ///< when it began, as the view
        View view;
        std::array<double, 2> legendAt{};
        bool moved = false;
        std::optional<Held> held = {};
        std::optional<Border> border = {};
        Document from = {};                      ///< when it began, if a border is dragged
        std::optional<std::size_t> carried = {}; ///< a panel that is taken elsewhere
        std::optional<std::size_t> noteHandle = {};
        std::vector<Point> noteAt = {}; ///< of a note that is moved: its places when it began
        bool isNew = false;             ///< the note was made by this press
        std::optional<OnBar> bar = {};
        std::optional<ItemPath> entry = {}; ///< of a legend, that it is held by
        Qt::MouseButton button = Qt::LeftButton;
        bool drawsRectangle = false; ///< round what is to be shown
    };
    bool pressOfHand(const QMouseEvent& event);
    Rect drawnRectangle(const Drag& drag, Point mm) const;
    void showRectangle(const Drag& drag, Point mm);
    void paintRectangle(QPainter& painter) const;
    /// Two fingers that move the view.
    struct Glide {
        ItemPath part;
        Frame frame; ///< when they began
        QPointF by;
    };
    void glideBy(const ItemPath& part, QPointF by);
    std::optional<Glide> glide_;
    std::optional<ItemPath> entryAt(Point mm) const;
    /// The vertical scale under a place that the held entry's plot does not lie on yet, by its number.
    std::optional<std::size_t> otherScaleAt(const Drag& drag, Point mm) const;
    /// Gives the plot of an entry the scale that it was dropped on; the legend stays where it was.
    void dropEntry(const Drag& drag, Point mm);
    void dragNote(Point mm, QPointF by, bool snaps);
    void releaseNote(const Drag& drag);
    /// A line or polygon while its corners are placed.
    struct Corners {
        ItemPath path;
        std::size_t placed = 0;
    };

    DocumentSession& session_;
    FigureWorker& worker_;
    const LookSettings& look_;
    std::shared_ptr<const ShownFigure> figure_;
    Eyes eyes_ = Eyes::Usual;
    QImage seen_; ///< its pixels, as these eyes have them
    QString waitsFor_;
    ItemPath selection_;
    std::optional<Drag> drag_;
    std::optional<std::string> pendingNote_; ///< kind of the note that the next press places
    std::optional<Corners> corners_;
    /// How values are spread, of the figure they were counted in.
    struct Spread {
        std::shared_ptr<const ShownFigure> figure;
        std::size_t panel = 0;
        std::vector<double> shares;
    };
    mutable Spread spread_;
    std::vector<std::array<Point, 2>> guides_; ///< lines that a dragged note is aligned with, mm
    bool patient_ = false;
    bool rangeHeld_ = false;
    QString readOut_;
    std::optional<Point> marker_; ///< where the read-out snapped to, mm
    QPointF pointer_;
    QLineEdit* textField_;
    QToolButton* profileButton_;
    std::optional<ItemPath> textPath_;
};

} // namespace coulter
