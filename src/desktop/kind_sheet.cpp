#include "desktop/kind_sheet.h"

#include "composition/figure.h"
#include "drawing/cairo_painter.h"
#include "figure/scale_settings.h"

#include <QImage>
#include <QListWidget>
#include <QVBoxLayout>

namespace coulter {
namespace {

constexpr double pictureWidth = 56, pictureHeight = 42; // mm of the little sheet
constexpr int pictureDots = 190;

/// As fine as so little a picture shows, and soon there.
const Effort littleEffort{0.1, 150 / 25.4, 20'000, false, false, usualOperations / 50};

/// The panel with this plot alone, on a little sheet.
Document pictureOf(const Document& document, const ItemPath& path, const Plot& plot) {
    Document little;
    little.format = document.format;
    little.page = document.page;
    little.sheet.width = pictureWidth;
    little.sheet.height = pictureHeight;
    little.sheet.textSize = 5;
    little.sheet.tolerance = 0.1;
    little.sheet.resolution = 150;
    little.panels = {document.panels[path.panel]};
    Panel& panel = little.panels[0];
    panel.cell.reset();
    panel.further.clear();
    panel.title.clear();
    panel.x.label = panel.y.label = panel.z.label = panel.colour.label = "";
    panel.legend.place = LegendPlace::None;
    set(panel.colour.settings, barSetting, std::string("none"));
    panel.plots = {plot};
    return little;
}

} // namespace

KindSheet::KindSheet(DocumentSession& session, const LookSettings& look, const ItemPath& path, QWidget* parent)
    : QDialog(parent), session_(session), path_(path), list_(new QListWidget) {
    setObjectName("kindSheet");
    setWindowTitle(tr("Draw as"));
    list_->setObjectName("kindPictures");
    list_->setAccessibleName(tr("Ways to draw it"));
    list_->setViewMode(QListView::IconMode);
    list_->setMovement(QListView::Static);
    list_->setResizeMode(QListView::Adjust);
    list_->setUniformItemSizes(true);
    list_->setSpacing(look.look().px(6));
    const int wide = look.look().px(pictureDots), high = static_cast<int>(wide * pictureHeight / pictureWidth);
    list_->setIconSize({wide, high});
    list_->setGridSize({wide + look.look().px(16), high + look.look().px(34)});
    auto* column = new QVBoxLayout(this);
    column->addWidget(list_);
    resize(look.look().px(900), look.look().px(620));
    const Document& document = session.document();
    const auto* plot = path.panel < document.panels.size() && path.index < document.panels[path.panel].plots.size()
                           ? &document.panels[path.panel].plots[path.index]
                           : nullptr;
    if (plot) ways_ = waysToDraw(readPage(document.page), *plot);
    std::vector<Document> documents;
    QPixmap empty(wide, high);
    empty.fill(look.look().page());
    for (const WayToDraw& way : ways_) {
        documents.push_back(pictureOf(document, path, way.plot));
        auto* item = new QListWidgetItem(QIcon(empty), QString::fromStdString(way.name), list_);
        item->setTextAlignment(Qt::AlignHCenter);
        if (way.isNow) list_->setCurrentItem(item);
    }
    connect(list_, &QListWidget::itemClicked, this, [this](QListWidgetItem* item) { choose(list_->row(item)); });
    connect(list_, &QListWidget::itemActivated, this, [this](QListWidgetItem* item) { choose(list_->row(item)); });
    const double ratio = devicePixelRatioF();
    drawer_ = std::jthread([this, documents, wide, ratio](std::stop_token stop) {
        for (std::size_t i = 0; i < documents.size() && !stop.stop_requested(); ++i) {
            const Figure figure = drawFigure(documents[i], littleEffort, stop);
            if (stop.stop_requested()) return;
            const Raster raster = paintRaster(figure.scene, wide * ratio / figure.scene.width);
            QImage image = QImage(reinterpret_cast<const uchar*>(raster.pixels.data()), raster.width, raster.height,
                                  raster.width * 4, QImage::Format_RGB32)
                               .copy();
            image.setDevicePixelRatio(ratio);
            QMetaObject::invokeMethod(this, [this, image, i, stop] {
                if (stop.stop_requested()) return;
                QIcon icon(QPixmap::fromImage(image));
                icon.addPixmap(QPixmap::fromImage(image), QIcon::Selected); // no tint over the chosen one
                list_->item(static_cast<int>(i))->setIcon(icon);
                ++pictures_;
            });
        }
    });
}

void KindSheet::choose(int row) {
    if (row < 0 || row >= static_cast<int>(ways_.size())) return;
    Document document = session_.document();
    if (path_.panel >= document.panels.size() || path_.index >= document.panels[path_.panel].plots.size())
        return close(), void();
    document.panels[path_.panel].plots[path_.index] = ways_[static_cast<std::size_t>(row)].plot;
    session_.edit(std::move(document), tr("another kind of plot"));
    close();
}

} // namespace coulter
