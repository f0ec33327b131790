using MathNet.Numerics.LinearAlgebra;
using MathNet.Numerics.LinearAlgebra.Double;

namespace DeepBaize.Core.Photo;

/// <summary>
/// A camera: where it stands, how it looks, how long its lens is, and how much that bends straight lines. Square pixels, the axis through
/// the picture's middle; radial bending of the first order (Brown 1971; Hartley &amp; Zisserman, <i>Multiple View Geometry</i>, 2nd ed.,
/// 6 and 7.4).
/// </summary>
/// <param name="Turn">Rotation vector, radians: of the table's axes into the camera's, x right, y down, z ahead.</param>
/// <param name="Shift">Of the table's origin in the camera's axes, m.</param>
/// <param name="Focal">Focal length, px.</param>
/// <param name="Bend">k of r′ = r·(1 + k·r²), r the distance from the axis at a depth of one.</param>
public sealed record Camera(Vector<double> Turn, Vector<double> Shift, double Focal, double Bend, (double U, double V) Middle)
{
    /// <summary>Of how many figures it is made, the middle apart.</summary>
    public const int Figures = 8;

    private readonly Matrix<double> _rotation = RotationOf(Turn);

    /// <summary>Returns a camera from its parameters, in the order of <see cref="ToFigures"/>.</summary>
    public static Camera Of(Vector<double> figures, (double U, double V) middle) =>
        new(figures.SubVector(0, 3), figures.SubVector(3, 3), Math.Exp(figures[6]), figures[7], middle);

    /// <summary>Turn, shift, the logarithm of the focal length, bend.</summary>
    public Vector<double> ToFigures() => DenseVector.OfArray([.. Turn, .. Shift, Math.Log(Focal), Bend]);

    /// <summary>Where a point of the table is in the picture.</summary>
    public Pixel Project(double x, double y, double z)
    {
        var p = _rotation * DenseVector.OfArray([x, y, z]) + Shift;
        var (a, b) = (p[0] / p[2], p[1] / p[2]);
        var bent = 1 + Bend * (a * a + b * b);
        return new(Middle.U + Focal * a * bent, Middle.V + Focal * b * bent);
    }

    /// <summary>Where what is seen at a place of the picture is, if it is so high above the cloth, m.</summary>
    public (double X, double Y) At(Pixel pixel, double height)
    {
        var (a, b) = Unbent(pixel);
        var back = _rotation.Transpose();
        var (eye, ray) = (-(back * Shift), back * DenseVector.OfArray([a, b, 1]));
        var far = (height - eye[2]) / ray[2];
        return (eye[0] + far * ray[0], eye[1] + far * ray[1]);
    }

    /// <summary>Where a place of the picture would be at a depth of one, if the lens bent nothing.</summary>
    public (double A, double B) Unbent(Pixel pixel)
    {
        var (u, v) = ((pixel.U - Middle.U) / Focal, (pixel.V - Middle.V) / Focal);
        var (a, b) = (u, v);
        // Step by step: the bending is small.
        for (var i = 0; i < 20; i++)
        {
            var bent = 1 + Bend * (a * a + b * b);
            (a, b) = (u / bent, v / bent);
        }
        return (a, b);
    }

    /// <summary>How far places of the picture lie beside the straight line that fits them best once the bending is undone, px.</summary>
    public IEnumerable<double> OffLine(IReadOnlyList<Pixel> places)
    {
        var all = places.Select(Unbent).ToList();
        var (a, b) = (all.Average(p => p.A), all.Average(p => p.B));
        var (aa, bb, ab) = (all.Sum(p => (p.A - a) * (p.A - a)), all.Sum(p => (p.B - b) * (p.B - b)), all.Sum(p => (p.A - a) * (p.B - b)));
        var along = Math.Atan2(2 * ab, aa - bb) / 2;
        return all.Select(p => Focal * ((p.B - b) * Math.Cos(along) - (p.A - a) * Math.Sin(along)));
    }

    /// <summary>How large a sphere on the cloth is drawn, by where its middle is in the picture.</summary>
    /// <param name="radius">m</param>
    public BallSize SizeOf(double radius)
    {
        // The plane of the middles, n·p = away in the camera's axes: what is seen along (a, b, 1) is away / (n·(a, b, 1)) deep.
        var normal = _rotation.Column(2);
        var away = normal.DotProduct(Shift) + radius;
        var (byU, byV) = (radius * normal[0] / away, radius * normal[1] / away);
        return new(radius * Focal * normal[2] / away - byU * Middle.U - byV * Middle.V, byU, byV);
    }

    /// <summary>Rodrigues' formula.</summary>
    private static Matrix<double> RotationOf(Vector<double> turn)
    {
        var angle = turn.L2Norm();
        var identity = Matrix<double>.Build.DenseIdentity(3);
        if (angle < 1e-12)
            return identity;
        var k = turn / angle;
        var cross = DenseMatrix.OfArray(
            new[,]
            {
                { 0, -k[2], k[1] },
                { k[2], 0, -k[0] },
                { -k[1], k[0], 0 },
            }
        );
        return identity + Math.Sin(angle) * cross + (1 - Math.Cos(angle)) * cross * cross;
    }

    /// <summary>The rotation vector of a matrix that is one but for errors.</summary>
    public static Vector<double> TurnOf(Matrix<double> rotation)
    {
        // The nearest true rotation.
        var svd = rotation.Svd();
        var flip = Matrix<double>.Build.DenseIdentity(3);
        flip[2, 2] = (svd.U * svd.VT).Determinant() < 0 ? -1 : 1;
        var r = svd.U * flip * svd.VT;
        var angle = Math.Acos(Math.Clamp((r.Trace() - 1) / 2, -1, 1));
        var axis = DenseVector.OfArray([r[2, 1] - r[1, 2], r[0, 2] - r[2, 0], r[1, 0] - r[0, 1]]);
        if (axis.L2Norm() > 1e-9)
            return angle * axis.Normalize(2);
        // Half a turn: the axis is what the rotation leaves as it is.
        var sum = r + Matrix<double>.Build.DenseIdentity(3);
        var column = Enumerable.Range(0, 3).Select(i => sum.Column(i)).MaxBy(c => c.L2Norm())!;
        return angle < 1e-9 ? DenseVector.Create(3, 0) : angle * column.Normalize(2);
    }
}
