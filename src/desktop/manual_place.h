#pragma once
#include "figure/item_path.h"
#include "formula/page/line.h"

#include <QString>

namespace coulter {

/// A place in the manual: one of its pages, and words of a heading or of a table's row there; empty: its beginning.
struct ManualPlace {
    QString page; ///< "notation"
    QString words;
    friend bool operator==(const ManualPlace&, const ManualPlace&) = default;
};

/// What the manual says of a line of the page.
ManualPlace manualOfLine(const Line& line);
/// What it says of something on the sheet, or of one of its settings.
ManualPlace manualOfItem(const Document& document, const ItemPath& item, const QString& setting = {});

} // namespace coulter
