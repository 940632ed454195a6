#include "core/science/laminate/plate.hpp"

#include <cmath>

#include "core/base/units.hpp"

namespace jig {

double strip_sag_uniform(double q, double L, double D, double S) {
    return 5 * q * std::pow(L, 4) / (384 * D) + q * L * L / (8 * S);
}

double strip_sag_middle(double P, double L, double D, double S) {
    return P * L * L * L / (48 * D) + P * L / (4 * S);
}

double long_plate_sag_point(double P, double L, double D, double S) {
    return 0.01695 * P * L * L / D + P / (4 * S);
}

double navier_plate_middle(double q, double a, double b, double D, double S, int terms) {
    double sum = 0;
    for (int m = 1; m <= terms; m += 2) {
        for (int n = 1; n <= terms; n += 2) {
            const double k = kPi * kPi * (m * m / (a * a) + n * n / (b * b));
            const double load = 16 * q / (kPi * kPi * m * n);
            const double sign = ((m + n) / 2) % 2 == 1 ? 1 : -1;  // sin(mπ/2) sin(nπ/2)
            sum += sign * load * (1 / (D * k * k) + 1 / (S * k));
        }
    }
    return sum;
}

double wrinkling_stress(double Ef, double Ec, double Gc) {
    return 0.5 * std::cbrt(Ef * Ec * Gc);
}

}  // namespace jig
