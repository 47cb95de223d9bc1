package dev.tranche.app.drawing;

/**
 * How millimetres become pixels: Y points down on a screen and away from the viewer on a bed.
 *
 * @param left px at {@code originX} mm
 * @param bottom px at {@code originY} mm
 * @param scaleX px a mm, as {@code scaleY}
 */
public record Frame(double left, double bottom, double originX, double originY, double scaleX, double scaleY) {
    public double x(double mm) {
        return left + (mm - originX) * scaleX;
    }

    public double y(double mm) {
        return bottom - (mm - originY) * scaleY;
    }
}
