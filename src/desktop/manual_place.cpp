#include "desktop/manual_place.h"

namespace coulter {

ManualPlace manualOfLine(const Line& line) {
    switch (line.kind) {
    case LineKind::Table: return {"data", "Tables"};
    case LineKind::Fit: return {"data", "Fits"};
    case LineKind::Search: return {"data", "Zeros, extrema, inflections"};
    case LineKind::Fourier: return {"calculus", "Fourier's analysis"};
    case LineKind::Matrix: return {"notation", "Vectors and matrices"};
    case LineKind::Numbers:
    case LineKind::Random: return {"notation", "Columns"};
    case LineKind::Variable: return {"notation", "Intervals and grids"};
    case LineKind::Drawn: return {"notation", "Formulas without a name"};
    case LineKind::Question: return {"notation", "Questions and their errors"};
    case LineKind::Function:
        if (!line.table.empty()) return {"data", "Pictures and grids"};
        if (line.arguments.size() > 2) return {"data", "Meshes"};
        if (line.interpolates) return {"data", "Readings as a function"};
        if (line.transform != Transform::None) return {"calculus", "Fourier's analysis"};
        return {"notation", "Expressions"};
    case LineKind::Quantity:
    case LineKind::Period:
    case LineKind::Solution:
    case LineKind::Blank:
    case LineKind::Prose:
    case LineKind::Unread: break;
    }
    return {"notation", "Lines"};
}

ManualPlace manualOfItem(const Document& document, const ItemPath& item, const QString& setting) {
    switch (item.kind) {
    case ItemKind::Plot: {
        const Plot* plot = plotAt(document, item);
        return {"plots", !setting.isEmpty() ? setting : plot ? QString::fromStdString(plot->kind) : QString()};
    }
    case ItemKind::Note: {
        const Note* note = noteAt(document, item);
        return {"sheet", !setting.isEmpty() ? setting : note ? QString::fromStdString(note->kind) : QString()};
    }
    case ItemKind::Scale:
    case ItemKind::ScaleLabel: return {"scales", setting};
    case ItemKind::Title:
    case ItemKind::SheetTitle: return {"words", ""};
    case ItemKind::Sheet:
    case ItemKind::Panel:
    case ItemKind::Legend:
    case ItemKind::SheetLegend: break;
    }
    return {"sheet", setting};
}

} // namespace coulter
