#include "desktop/compare_sheet.h"
#include "desktop/translation.h"

#include "composition/draw_figure.h"
#include "files/compare.h"

#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

namespace coulter {

CompareSheet::CompareSheet(const LookSettings& look, const QString& name, Document other, Document now, QWidget* parent)
    : QDialog(parent), picture_(new QLabel(tr("Both figures are being drawn."))), differences_(new QListWidget) {
    setObjectName("compareSheet");
    setWindowTitle(tr("Compared with %1").arg(name));
    const int width = look.look().px(680), height = look.look().px(430); // of the picture
    resize(look.look().px(720), look.look().px(700));
    picture_->setObjectName("compare-picture");
    picture_->setAccessibleName(tr("Both figures over one another"));
    picture_->setAlignment(Qt::AlignCenter);
    picture_->setMinimumHeight(height);
    auto* legend =
        new QLabel(tr("Blue: only in %1. Orange: only in the figure that is open. Dark: in both.").arg(name));
    legend->setObjectName("compare-legend");
    legend->setWordWrap(true);
    differences_->setObjectName("compare-differences");
    differences_->setAccessibleName(tr("What differs"));
    differences_->setWordWrap(true);
    auto* close = new QPushButton(tr("Close"));
    close->setDefault(true);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
    auto* buttons = new QHBoxLayout;
    buttons->addStretch(1);
    buttons->addWidget(close);
    auto* column = new QVBoxLayout(this);
    column->addWidget(picture_);
    column->addWidget(legend);
    column->addWidget(differences_, 1);
    column->addLayout(buttons);
    const double dots = width * devicePixelRatioF(), room = height * devicePixelRatioF();
    drawer_ =
        std::jthread([this, other = std::move(other), now = std::move(now), dots, room](const std::stop_token& stop) {
            const Figure first = drawFigure(other, stop), second = drawFigure(now, stop);
            if (stop.stop_requested()) return;
            const std::vector<std::string> sentences = describe(compareFigures(first, second));
            const double widest = std::max(other.sheet.width, now.sheet.width);
            const double highest = std::max(other.sheet.height, now.sheet.height);
            const Raster both = overlaid(first, second, std::clamp(std::min(dots / widest, room / highest), 0.5, 20.0));
            QImage image;
            if (!both.pixels.empty())
                image = QImage(reinterpret_cast<const uchar*>(both.pixels.data()), both.width, both.height,
                               QImage::Format_RGB32)
                            .copy();
            if (stop.stop_requested()) return;
            QMetaObject::invokeMethod(this, [this, sentences, image] {
                QPixmap shown = QPixmap::fromImage(image);
                shown.setDevicePixelRatio(devicePixelRatioF());
                picture_->setPixmap(shown);
                for (const std::string& sentence : sentences) differences_->addItem(spoken(sentence));
            });
        });
}

} // namespace coulter
