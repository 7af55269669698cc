#include "desktop/picture_grid.h"

#include <QPainter>

namespace coulter {

void makePictureGrid(QListWidget& list, const Look& look, QSize size) {
    list.setViewMode(QListView::IconMode);
    list.setMovement(QListView::Static);
    list.setResizeMode(QListView::Adjust);
    list.setUniformItemSizes(true);
    list.setSpacing(look.px(6));
    list.setIconSize(size);
    list.setGridSize(size + QSize(look.px(16), look.px(34)));
}

QImage onGround(const QImage& picture, QSize size, const QColor& ground) {
    QImage all(size, QImage::Format_RGB32);
    all.fill(ground);
    const QImage fitting = picture.scaled(size, Qt::KeepAspectRatio, Qt::SmoothTransformation);
    QPainter(&all).drawImage((size.width() - fitting.width()) / 2, (size.height() - fitting.height()) / 2, fitting);
    return all;
}

void showPicture(QListWidgetItem& item, const QImage& picture) {
    QIcon icon(QPixmap::fromImage(picture));
    icon.addPixmap(QPixmap::fromImage(picture), QIcon::Selected);
    item.setIcon(icon);
}

} // namespace coulter
