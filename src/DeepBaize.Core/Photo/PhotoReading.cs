using DeepBaize.Core.Table;
using MathNet.Numerics.LinearAlgebra;
using MathNet.Numerics.LinearAlgebra.Double;

namespace DeepBaize.Core.Photo;

/// <summary>A ball that was found in a picture.</summary>
/// <param name="Error">By how much it may be off, m: so much or less in 19 cases of 20.</param>
public sealed record FoundBall(Ball Ball, double X, double Y, double Error);

/// <summary>What is known of a camera's lens: from an earlier picture of the same camera, taken with many marks.</summary>
/// <param name="Focal">Focal length over the longer side of the picture, 0.3 to 3.</param>
/// <param name="Bend">How much it bends straight lines, −0.5 to 0.5.</param>
public sealed record Lens(double Focal, double Bend)
{
    /// <summary>Adds an error for each parameter out of its range.</summary>
    public void Check(Checks checks)
    {
        checks.Range("lens.focal", Focal, 0.3, 3);
        checks.Range("lens.bend", Bend, -0.5, 0.5);
    }
}

/// <summary>
/// How large a ball is drawn at a place of a picture: its radius is <c>At + ByU·u + ByV·v</c>, px, for the depth of a plane is the
/// inverse of a linear function of the picture (Hartley &amp; Zisserman, <i>Multiple View Geometry</i>, 2nd ed., 8.1). Left out are the
/// lens's bending and how much longer a sphere is drawn away from the picture's middle: up to 15 %.
/// </summary>
public sealed record BallSize(double At, double ByU, double ByV);

/// <summary>What was read off a picture.</summary>
/// <param name="Lens">As it fits this picture.</param>
public sealed record PhotoResult(IReadOnlyList<FoundBall> Balls, Lens Lens, BallSize BallSize);

/// <summary>Reads the table off a photograph: from marks on known points, where the camera stood; from that, where balls lie.</summary>
public static class PhotoReading
{
    /// <summary>Number of marks that a reading needs at least.</summary>
    public const int FewestMarks = 4;

    /// <summary>By how much marks and taps are off, px: a thumb is as exact as two pixels of a picture 1,600 wide.</summary>
    public static double UsualError(double width) => width / 800;

    // What is known of a camera before: a phone's, with a lens of usual length that bends little. Standard deviations.
    private static readonly Lens UsualLens = new(0.8, 0);
    private const double FocalSpread = 0.25,
        BendSpread = 0.05;

    // Of a lens that is known.
    private const double KnownFocalSpread = 0.02,
        KnownBendSpread = 0.005;
    private const int Steps = 60;

    /// <param name="size">Of the picture, px.</param>
    /// <param name="marks">On known points.</param>
    /// <param name="taps">On the middles of balls.</param>
    /// <param name="lens">If it is known.</param>
    /// <param name="straight">Places along edges that are straight on the table, as cushions': they tell how the lens bends (the plumb line
    /// of Brown 1971, "Close-range camera calibration").</param>
    /// <exception cref="InputException">Too few marks, marks that do not fit a table, or a ball that is not on it.</exception>
    public static PhotoResult Read(
        (double Width, double Height) size,
        IReadOnlyList<Mark> marks,
        IReadOnlyList<Tap> taps,
        Lens? lens = null,
        IReadOnlyList<IReadOnlyList<Pixel>>? straight = null
    )
    {
        var checks = new Checks();
        checks.That(
            marks.Select(m => (m.Point.X, m.Point.Y)).Distinct().Count() >= FewestMarks,
            "marks",
            $"There are {marks.Count} marks.",
            $"at least {FewestMarks} on different points"
        );
        lens?.Check(checks);
        checks.ThrowIfAny();
        var fit = new Fit(size, marks, lens, straight ?? []);
        var found = taps.Select(fit.Find).ToList();
        const double beyond = 0.05;
        for (var i = 0; i < found.Count; i++)
            checks.That(
                found[i].X is > -beyond and < Dimensions.Length + beyond && found[i].Y is > -beyond and < Dimensions.Width + beyond,
                $"balls[{i}]",
                $"The {found[i].Ball} would lie off the table.",
                "a tap on the table, and marks on the points that they are named by"
            );
        checks.ThrowIfAny();
        return new(found, fit.Lens, fit.BallSize);
    }

    /// <summary>The camera that fits the marks best, given what cameras are like; and how well it is known.</summary>
    private sealed class Fit
    {
        private readonly (double U, double V) _middle;
        private readonly IReadOnlyList<Mark> _marks;
        private readonly IReadOnlyList<IReadOnlyList<Pixel>> _straight;
        private readonly double _offLine;
        private readonly double _longer;
        private readonly Lens _before;
        private readonly (double Focal, double Bend) _spread;
        private readonly Vector<double> _figures;
        private readonly Matrix<double> _covariance;

        public Fit((double Width, double Height) size, IReadOnlyList<Mark> marks, Lens? lens, IReadOnlyList<IReadOnlyList<Pixel>> straight)
        {
            (_middle, _marks, _straight) = ((size.Width / 2, size.Height / 2), marks, straight);
            _offLine = UsualError(size.Width) / 2;
            (_longer, _before) = (Math.Max(size.Width, size.Height), lens ?? UsualLens);
            _spread = lens is null ? (FocalSpread, BendSpread) : (KnownFocalSpread, KnownBendSpread);
            _figures = Best(Guess(_before.Focal * _longer).ToFigures());
            var slopes = Slopes(_figures);
            _covariance = (slopes.Transpose() * slopes).PseudoInverse();
            var worst = Residuals(_figures).Take(2 * marks.Count).Select(Math.Abs).DefaultIfEmpty(0).Max();
            // Far off what a thumb does: a mark stands on another point than it is named by.
            if (!(worst < 12))
                throw new InputException("marks", "The marks do not fit a table.", "each on the point that it is named by");
        }

        public Lens Lens => new(Math.Exp(_figures[6]) / _longer, _figures[7]);

        public BallSize BallSize => Camera.Of(_figures, _middle).SizeOf(Dimensions.BallRadius);

        public FoundBall Find(Tap tap)
        {
            var (ball, at) = (tap.Ball, tap.At);
            var camera = Camera.Of(_figures, _middle);
            var (x, y) = camera.At(at, Dimensions.BallRadius);
            // By how much the place moves with each figure of the camera, and with the tap.
            const double step = 1e-5;
            Matrix<double> variance = DenseMatrix.Create(2, 2, 0);
            var moves = DenseMatrix.Create(2, Camera.Figures, 0);
            for (var i = 0; i < Camera.Figures; i++)
            {
                var other = _figures.Clone();
                other[i] += step;
                var (ox, oy) = Camera.Of(other, _middle).At(at, Dimensions.BallRadius);
                (moves[0, i], moves[1, i]) = ((ox - x) / step, (oy - y) / step);
            }
            var ofCamera = moves * _covariance * moves.Transpose();
            foreach (var beside in new[] { at with { U = at.U + 1 }, at with { V = at.V + 1 } })
            {
                var (tx, ty) = camera.At(beside, Dimensions.BallRadius);
                var (dx, dy) = (tap.Error / 2 * (tx - x), tap.Error / 2 * (ty - y));
                variance =
                    variance
                    + DenseMatrix.OfArray(
                        new[,]
                        {
                            { dx * dx, dx * dy },
                            { dx * dy, dy * dy },
                        }
                    );
            }
            var all = ofCamera + variance;
            // The longer axis of the ellipse that holds 19 of 20.
            var (a, b, c) = (all[0, 0], all[1, 1], all[0, 1]);
            var longest = (a + b) / 2 + Math.Sqrt((a - b) * (a - b) / 4 + c * c);
            return new(ball, x, y, Math.Sqrt(longest * -2 * Math.Log(0.05)));
        }

        /// <summary>Levenberg and Marquardt's way down from a guess.</summary>
        private Vector<double> Best(Vector<double> figures)
        {
            var (damping, residuals) = (1e-3, Residuals(figures));
            for (var i = 0; i < Steps; i++)
            {
                var slopes = Slopes(figures);
                var (normal, gradient) = (slopes.Transpose() * slopes, slopes.Transpose() * residuals);
                var next = figures - (normal + damping * DenseMatrix.OfDiagonalVector(normal.Diagonal() + 1e-12)).Solve(gradient);
                var there = Residuals(next);
                if (!(there.L2Norm() < residuals.L2Norm()))
                {
                    damping *= 8;
                    continue;
                }
                var gain = residuals.L2Norm() - there.L2Norm();
                (figures, residuals, damping) = (next, there, damping / 5);
                if (gain < 1e-10)
                    break;
            }
            return figures;
        }

        /// <summary>In standard deviations: how far the marks are off, and the camera off what is usual.</summary>
        private Vector<double> Residuals(Vector<double> figures)
        {
            var camera = Camera.Of(figures, _middle);
            var off = new List<double>();
            foreach (var (point, at, error) in _marks)
            {
                var seen = camera.Project(point.X, point.Y, point.Z);
                // A mark is as likely to be off by half of the whole error either way.
                off.Add((seen.U - at.U) / (error / 2));
                off.Add((seen.V - at.V) / (error / 2));
            }
            off.AddRange(_straight.SelectMany(camera.OffLine).Select(o => o / _offLine));
            off.Add((figures[6] - Math.Log(_before.Focal * _longer)) / _spread.Focal);
            off.Add((figures[7] - _before.Bend) / _spread.Bend);
            return DenseVector.OfEnumerable(off);
        }

        private Matrix<double> Slopes(Vector<double> figures)
        {
            const double step = 1e-6;
            var at = Residuals(figures);
            return DenseMatrix.OfColumnVectors(
                Enumerable
                    .Range(0, Camera.Figures)
                    .Select(i =>
                    {
                        var other = figures.Clone();
                        other[i] += step;
                        return (Residuals(other) - at) / step;
                    })
            );
        }

        /// <summary>By the homography of the marks as if all lay on the cloth (Zhang 2000, section 3).</summary>
        private Camera Guess(double focal)
        {
            var rows = new List<double[]>();
            foreach (var (point, at, _) in _marks)
            {
                var (u, v) = ((at.U - _middle.U) / focal, (at.V - _middle.V) / focal);
                rows.Add([point.X, point.Y, 1, 0, 0, 0, -u * point.X, -u * point.Y, -u]);
                rows.Add([0, 0, 0, point.X, point.Y, 1, -v * point.X, -v * point.Y, -v]);
            }
            // Four marks give eight rows of nine: a ninth of nothing, for the singular vectors to be whole.
            while (rows.Count < 9)
                rows.Add(new double[9]);
            var h = DenseMatrix.OfRowArrays(rows).Svd().VT.Row(8);
            var (one, two, shift) = (h.ColumnOf(0), h.ColumnOf(1), h.ColumnOf(2));
            var scale = 2 / (one.L2Norm() + two.L2Norm());
            // The table lies before the camera.
            scale *= Math.Sign(shift[2]) is var sign && sign == 0 ? 1 : sign;
            var (x, y) = (scale * one, scale * two);
            var z = DenseVector.OfArray([x[1] * y[2] - x[2] * y[1], x[2] * y[0] - x[0] * y[2], x[0] * y[1] - x[1] * y[0]]);
            return new(Camera.TurnOf(DenseMatrix.OfColumnVectors(x, y, z)), scale * shift, focal, 0, _middle);
        }
    }

    private static Vector<double> ColumnOf(this Vector<double> homography, int column) =>
        DenseVector.OfArray([homography[column], homography[3 + column], homography[6 + column]]);
}
