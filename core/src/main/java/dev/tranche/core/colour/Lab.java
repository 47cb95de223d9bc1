package dev.tranche.core.colour;

import static java.lang.Math.abs;
import static java.lang.Math.atan2;
import static java.lang.Math.cos;
import static java.lang.Math.exp;
import static java.lang.Math.hypot;
import static java.lang.Math.pow;
import static java.lang.Math.sin;
import static java.lang.Math.sqrt;
import static java.lang.Math.toDegrees;
import static java.lang.Math.toRadians;

/**
 * A colour in CIE 1976 L*a*b*.
 *
 * @param lightness L*, 0 black to 100 white
 * @param a green (−) to red (+)
 * @param b blue (−) to yellow (+)
 */
public record Lab(double lightness, double a, double b) {

    /**
     * How different two colours look, as CIEDE2000 with kL = kC = kH = 1: about 1 is just visible side by side.
     *
     * <p>Source: Sharma, Wu and Dalal, "The CIEDE2000 color-difference formula", Color Research &amp;
     * Application 30 (2005), equations 2–22; the names of variables are theirs.
     *
     * @return the difference, 0 or more; the same both ways round
     */
    public double differenceTo(Lab other) {
        double meanC = (hypot(a, b) + hypot(other.a, other.b)) / 2;
        double g = 0.5 * (1 - sqrt(pow(meanC, 7) / (pow(meanC, 7) + pow(25, 7))));
        double a1 = (1 + g) * a;
        double a2 = (1 + g) * other.a;
        double c1 = hypot(a1, b);
        double c2 = hypot(a2, other.b);
        double h1 = hue(a1, b);
        double h2 = hue(a2, other.b);
        boolean grey = c1 * c2 == 0;

        double dL = other.lightness - lightness;
        double dC = c2 - c1;
        double dh = grey ? 0 : turn(h2 - h1);
        double dH = 2 * sqrt(c1 * c2) * sin(toRadians(dh / 2));

        double meanL = (lightness + other.lightness) / 2;
        double meanC1 = (c1 + c2) / 2;
        double meanH = grey ? h1 + h2 : meanHue(h1, h2);
        double t = 1
                - 0.17 * cos(toRadians(meanH - 30))
                + 0.24 * cos(toRadians(2 * meanH))
                + 0.32 * cos(toRadians(3 * meanH + 6))
                - 0.20 * cos(toRadians(4 * meanH - 63));
        double dTheta = 30 * exp(-pow((meanH - 275) / 25, 2));
        double rC = 2 * sqrt(pow(meanC1, 7) / (pow(meanC1, 7) + pow(25, 7)));
        double l50 = pow(meanL - 50, 2);
        double sL = 1 + 0.015 * l50 / sqrt(20 + l50);
        double sC = 1 + 0.045 * meanC1;
        double sH = 1 + 0.015 * meanC1 * t;
        double rT = -sin(toRadians(2 * dTheta)) * rC;
        return sqrt(pow(dL / sL, 2) + pow(dC / sC, 2) + pow(dH / sH, 2) + rT * (dC / sC) * (dH / sH));
    }

    private static double hue(double a, double b) {
        if (a == 0 && b == 0) {
            return 0;
        }
        double h = toDegrees(atan2(b, a));
        return h < 0 ? h + 360 : h;
    }

    private static double turn(double degrees) {
        return degrees > 180 ? degrees - 360 : degrees < -180 ? degrees + 360 : degrees;
    }

    private static double meanHue(double h1, double h2) {
        if (abs(h1 - h2) <= 180) {
            return (h1 + h2) / 2;
        }
        return h1 + h2 < 360 ? (h1 + h2 + 360) / 2 : (h1 + h2 - 360) / 2;
    }
}
