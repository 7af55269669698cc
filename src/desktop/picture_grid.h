#pragma once
#include "desktop/look.h"

#include <QImage>
#include <QListWidget>

namespace coulter {

/// Makes a list a grid of pictures with a line of words below each.
/// @param size  of a picture, px
void makePictureGrid(QListWidget& list, const Look& look, QSize size);

/// A picture on a ground of one size, so that tall and wide figures stand in one row.
QImage onGround(const QImage& picture, QSize size, const QColor& ground);

/// Shows an item's picture, without a tint over the one that is current.
void showPicture(QListWidgetItem& item, const QImage& picture);

} // namespace coulter
