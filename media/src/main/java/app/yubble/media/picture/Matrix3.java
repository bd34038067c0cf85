package app.yubble.media.picture;

/** Three by three numbers, row by row. */
record Matrix3(double[] values) {
    double at(int row, int column) {
        return values[3 * row + column];
    }

    double[] column(int column) {
        return new double[] {values[column], values[3 + column], values[6 + column]};
    }

    double[] times(double[] v) {
        double[] out = new double[3];
        for (int i = 0; i < 3; i++) {
            out[i] = at(i, 0) * v[0] + at(i, 1) * v[1] + at(i, 2) * v[2];
        }
        return out;
    }

    Matrix3 times(Matrix3 other) {
        double[] out = new double[9];
        for (int c = 0; c < 3; c++) {
            double[] column = times(other.column(c));
            for (int r = 0; r < 3; r++) {
                out[3 * r + c] = column[r];
            }
        }
        return new Matrix3(out);
    }

    static Matrix3 diagonal(double[] v) {
        return new Matrix3(new double[] {v[0], 0, 0, 0, v[1], 0, 0, 0, v[2]});
    }

    Matrix3 inverse() {
        double[] m = values;
        double[] cofactors = new double[9];
        for (int r = 0; r < 3; r++) {
            for (int c = 0; c < 3; c++) {
                int r1 = (r + 1) % 3;
                int r2 = (r + 2) % 3;
                int c1 = (c + 1) % 3;
                int c2 = (c + 2) % 3;
                cofactors[3 * c + r] = at(r1, c1) * at(r2, c2) - at(r1, c2) * at(r2, c1);
            }
        }
        double determinant = m[0] * cofactors[0] + m[1] * cofactors[3] + m[2] * cofactors[6];
        for (int i = 0; i < cofactors.length; i++) {
            cofactors[i] /= determinant;
        }
        return new Matrix3(cofactors);
    }
}
