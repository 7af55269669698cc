#pragma once

namespace coulter {

enum class ScaleKind { Linear, Logarithmic };

/// One scale of a panel: from the user's coordinate to millimetres from the panel's lower left corner.
struct AxisMap {
    ScaleKind kind = ScaleKind::Linear;
    double low = 0;      ///< coordinate at 0 mm
    double high = 1;     ///< coordinate at `length` mm
    double length = 100; ///< mm

    /// mm; outside [0, length] if the coordinate is
    double toSheet(double coordinate) const {
        return kind == ScaleKind::Linear ? (coordinate - low) / (high - low) * length : logarithmicToSheet(coordinate);
    }
    double fromSheet(double mm) const;
    friend bool operator==(const AxisMap&, const AxisMap&) = default;

private:
    double logarithmicToSheet(double coordinate) const;
};

/// The panel on the sheet, through both of its scales.
struct PanelMap {
    AxisMap x;
    AxisMap y;
    friend bool operator==(const PanelMap&, const PanelMap&) = default;
};

} // namespace coulter
