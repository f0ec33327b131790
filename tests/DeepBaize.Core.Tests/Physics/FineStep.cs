using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Physics;

/// <summary>
/// A second, independent program for docs/model.md, by plain small steps, slow and obvious: what the simulator is compared with.
/// It shares nothing with the simulator but the table's figures.
/// </summary>
public sealed class FineStep(TableShape shape)
{
    private const double Dt = 2e-5;
    private const int CushionSteps = 400_000;

    public sealed class Body
    {
        public required Ball Ball;
        public double X,
            Y,
            Z,
            Vx,
            Vy,
            Vz,
            Wx,
            Wy,
            Wz;
        public Pocket? Pocket;
        public bool Off;
        internal double Ax,
            Ay,
            PastX,
            PastY,
            PastZ;
        internal bool Gone => Pocket is not null || Off;
        internal bool Moving => !Gone && (Vx != 0 || Vy != 0 || Wx != 0 || Wy != 0 || Z > 0 || Vz > 0);
        internal bool Flies => Z > 0 || Vz > 0;
    }

    public int Contacts { get; private set; }

    private readonly Conditions _c = shape.Conditions;

    /// <param name="most">Seconds.</param>
    public List<Body> Play(Layout layout, Strike strike, double most = 60)
    {
        var bodies = Bodies(layout.Balls);
        var a = strike.AimDegrees * Math.PI / 180;
        var (side, height, theta) = (strike.Side, strike.Height, strike.ElevationDegrees * Math.PI / 180);
        var j = (1 + _c.TipRestitution) * strike.CueSpeed / (1 + BallMass / _c.CueMass + 2.5 * (side * side + height * height));
        a += Math.Atan(2.5 * side * Math.Sqrt(1 - side * side) / (1 + _c.EndMassRatio + 2.5 * (1 - side * side)));
        var w = bodies[0];
        var spin = 5 * j / (2 * BallRadius);
        (w.Vx, w.Vy) = (j * Math.Cos(theta) * Math.Cos(a), j * Math.Cos(theta) * Math.Sin(a));
        w.Wx = spin * (side * Math.Sin(theta) * Math.Cos(a) - height * Math.Sin(a));
        w.Wy = spin * (side * Math.Sin(theta) * Math.Sin(a) + height * Math.Cos(a));
        w.Wz = spin * side * Math.Cos(theta);
        if (theta > 0)
            Land(w, j * Math.Sin(theta));
        Run(bodies, most);
        return bodies;
    }

    /// <summary>Balls as they are set in motion, so many seconds on.</summary>
    public void Run(List<Body> bodies, double most)
    {
        for (var t = 0.0; t < most && bodies.Any(b => b.Moving); t += Dt)
            Step(bodies);
    }

    public static List<Body> Bodies(IEnumerable<PlacedBall> balls) =>
        [
            .. balls.Select(b => new Body
            {
                Ball = b.Ball,
                X = b.X,
                Y = b.Y,
            }),
        ];

    /// <summary>A blow of the bed: the normal impulse, and friction against the slip.</summary>
    private void Land(Body b, double w)
    {
        var e = w < 0.05 ? 0 : _c.BedRestitution;
        var (ux, uy) = (b.Vx - BallRadius * b.Wy, b.Vy + BallRadius * b.Wx);
        var slip = Math.Sqrt(ux * ux + uy * uy);
        var p = Math.Min(_c.SlidingFriction * (1 + e) * w, 2 * slip / 7);
        if (slip > 0)
        {
            b.Vx -= p * ux / slip;
            b.Vy -= p * uy / slip;
            b.Wx -= 2.5 * p / BallRadius * uy / slip;
            b.Wy += 2.5 * p / BallRadius * ux / slip;
        }
        b.Z = 0;
        b.Vz = e * w < 0.03 ? 0 : e * w;
    }

    private void Step(List<Body> bodies)
    {
        foreach (var b in bodies)
        {
            (b.PastX, b.PastY, b.PastZ) = (b.X, b.Y, b.Z);
            if (b.Moving)
                Travel(b, Dt);
        }
        for (var i = 0; i < bodies.Count; i++)
        {
            var b = bodies[i];
            if (!b.Moving)
                continue;
            for (var k = 0; k < bodies.Count; k++)
                if (k != i && !bodies[k].Gone && !b.Gone && (k > i || !bodies[k].Moving))
                    MeetBall(b, bodies[k], bodies);
            MeetTable(b);
        }
    }

    private void Travel(Body b, double dt)
    {
        if (b.Flies)
        {
            // Down before the step is over, it goes on along the bed.
            var down = (b.Vz + Math.Sqrt(b.Vz * b.Vz + 2 * _c.Gravity * b.Z)) / _c.Gravity;
            var t = Math.Min(dt, down);
            b.X += b.Vx * t;
            b.Y += b.Vy * t;
            b.Z += b.Vz * t - _c.Gravity * t * t / 2;
            b.Vz -= _c.Gravity * t;
            (b.Ax, b.Ay) = (0, 0);
            if (down > dt)
                return;
            Land(b, -b.Vz);
            if (dt - t > 1e-12)
                Travel(b, dt - t);
            return;
        }
        var (ux, uy) = (b.Vx - BallRadius * b.Wy, b.Vy + BallRadius * b.Wx);
        var slip = Math.Sqrt(ux * ux + uy * uy);
        var loss = 3.5 * _c.SlidingFriction * _c.Gravity * dt;
        (b.Ax, b.Ay) = (0, 0);
        if (slip > loss)
        {
            (b.Ax, b.Ay) = (-_c.SlidingFriction * _c.Gravity * ux / slip, -_c.SlidingFriction * _c.Gravity * uy / slip);
            b.X += b.Vx * dt + b.Ax * dt * dt / 2;
            b.Y += b.Vy * dt + b.Ay * dt * dt / 2;
            b.Vx += b.Ax * dt;
            b.Vy += b.Ay * dt;
            b.Wx += 2.5 * b.Ay * dt / BallRadius;
            b.Wy -= 2.5 * b.Ax * dt / BallRadius;
        }
        else
        {
            // What slip is left is taken off at once: 2/7 of it from the speed.
            (b.Vx, b.Vy) = (b.Vx - ux * 2 / 7, b.Vy - uy * 2 / 7);
            var speed = Math.Sqrt(b.Vx * b.Vx + b.Vy * b.Vy);
            var slow = _c.RollingFriction * _c.Gravity * dt;
            if (speed <= slow)
                (b.Vx, b.Vy) = (0, 0);
            else
            {
                (b.Ax, b.Ay) = (-slow / dt * b.Vx / speed + _c.DriftAlong, -slow / dt * b.Vy / speed + _c.DriftAcross);
                b.X += b.Vx * dt + b.Ax * dt * dt / 2;
                b.Y += b.Vy * dt + b.Ay * dt * dt / 2;
                (b.Vx, b.Vy) = (b.Vx + b.Ax * dt, b.Vy + b.Ay * dt);
            }
            (b.Wx, b.Wy) = (-b.Vy / BallRadius, b.Vx / BallRadius);
        }
        b.Wz = Math.Sign(b.Wz) * Math.Max(0, Math.Abs(b.Wz) - _c.SpinDeceleration * dt);
    }

    private static double Distance(double x, double y) => Math.Sqrt(x * x + y * y);

    private static double Distance(double x, double y, double z) => Math.Sqrt(x * x + y * y + z * z);

    private void MeetBall(Body a, Body b, List<Body> all)
    {
        var apart = Distance(b.X - a.X, b.Y - a.Y, b.Z - a.Z) - 2 * BallRadius;
        if (apart >= 0)
            return;
        if (all.Any(o => o != a && o != b && !o.Gone && (Between(o, a) < Company || Between(o, b) < Company)))
        {
            if (Approach(a, b) > 0)
                MeetSoftly(a, b, all);
            return;
        }
        if (a.Flies || b.Flies)
        {
            MeetInSpace(a, b, apart);
            return;
        }
        var gap = Distance(b.X - a.X, b.Y - a.Y) - 2 * BallRadius;
        if (gap >= 0)
            return;
        var past = Distance(b.PastX - a.PastX, b.PastY - a.PastY) - 2 * BallRadius;
        // Go back to when the gap closed, and from there on with the new velocities.
        var back = Dt * gap / (gap - past);
        if (!(back >= 0 && back <= Dt))
            back = 0;
        var (nx, ny) = (b.X - a.X - back * (b.Vx - a.Vx), b.Y - a.Y - back * (b.Vy - a.Vy));
        var length = Distance(nx, ny);
        (nx, ny) = (nx / length, ny / length);
        var w = (a.Vx - b.Vx) * nx + (a.Vy - b.Vy) * ny;
        if (w <= 0)
            return;
        Contacts++;
        (a.X, a.Y, b.X, b.Y) = (a.X - back * a.Vx, a.Y - back * a.Vy, b.X - back * b.Vx, b.Y - back * b.Vy);

        // (ω × n) of the summed spins, as vectors in three dimensions; c less its part along n.
        var (sx, sy, sz) = (a.Wx + b.Wx, a.Wy + b.Wy, a.Wz + b.Wz);
        double[] c = [a.Vx - b.Vx + BallRadius * (-sz * ny), a.Vy - b.Vy + BallRadius * (sz * nx), BallRadius * (sx * ny - sy * nx)];
        var along = c[0] * nx + c[1] * ny;
        c[0] -= along * nx;
        c[1] -= along * ny;
        var slip = Math.Sqrt(c[0] * c[0] + c[1] * c[1] + c[2] * c[2]);
        var j = (1 + _c.BallRestitution) * w / 2;
        var p = Math.Min((_c.BallFrictionFloor + _c.BallFrictionRange * Math.Exp(-_c.BallFrictionDecay * slip)) * j, slip / 7);
        if (slip > 0)
            c = [-p * c[0] / slip, -p * c[1] / slip, -p * c[2] / slip];
        a.Vx += -j * nx + c[0];
        a.Vy += -j * ny + c[1];
        b.Vx += j * nx - c[0];
        b.Vy += j * ny - c[1];
        var k = 5 / (2 * BallRadius);
        foreach (var ball in (Body[])[a, b])
        {
            ball.Wx += k * ny * c[2];
            ball.Wy -= k * nx * c[2];
            ball.Wz += k * (nx * c[1] - ny * c[0]);
        }
        (a.X, a.Y, b.X, b.Y) = (a.X + back * a.Vx, a.Y + back * a.Vy, b.X + back * b.Vx, b.Y + back * b.Vy);
    }

    /// <summary>With a third ball no farther from one of two that meet, all three are taken as soft; m.</summary>
    private const double Company = 1.5e-3;

    private static double Between(Body a, Body b) => Distance(b.X - a.X, b.Y - a.Y, b.Z - a.Z) - 2 * BallRadius;

    private static double Approach(Body a, Body b) =>
        ((a.Vx - b.Vx) * (b.X - a.X) + (a.Vy - b.Vy) * (b.Y - a.Y) + (a.Vz - b.Vz) * (b.Z - a.Z)) / (2 * BallRadius);

    /// <summary>The law of a single contact once more, in vectors of three parts, for balls of which one is off the bed.</summary>
    private void MeetInSpace(Body a, Body b, double gap)
    {
        var past = Distance(b.PastX - a.PastX, b.PastY - a.PastY, b.PastZ - a.PastZ) - 2 * BallRadius;
        var back = Dt * gap / (gap - past);
        if (!(back >= 0 && back <= Dt))
            back = 0;
        if (Approach(a, b) <= 0)
            return;
        Contacts++;
        void Shift(double t)
        {
            foreach (var o in (Body[])[a, b])
                (o.X, o.Y, o.Z) = (o.X + t * o.Vx, o.Y + t * o.Vy, Math.Max(0, o.Z + t * o.Vz));
        }
        var (aFlies, bFlies) = (a.Flies, b.Flies);
        Shift(-back);
        double[] n = [b.X - a.X, b.Y - a.Y, b.Z - a.Z];
        var length = Distance(n[0], n[1], n[2]);
        n = [n[0] / length, n[1] / length, n[2] / length];
        // Thrown back up by the bed, one may meet the other again in the same moment.
        for (var w = Approach(a, b); w > 1e-9; w = Approach(a, b))
        {
            var j = (1 + _c.BallRestitution) * Dot([a.Vx - b.Vx, a.Vy - b.Vy, a.Vz - b.Vz], n) / 2;
            Push(a, b, n, j, slip => Math.Min(Friction(slip) * j, slip / 7), isFlat: false);
            if (!aFlies && a.Vz < 0)
                Land(a, -a.Vz);
            if (!bFlies && b.Vz < 0)
                Land(b, -b.Vz);
        }
        Shift(back);
    }

    private static double Dot(double[] a, double[] b) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

    private static double[] Cross(double[] a, double[] b) =>
        [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];

    private double Friction(double slip) => _c.BallFrictionFloor + _c.BallFrictionRange * Math.Exp(-_c.BallFrictionDecay * slip);

    /// <summary>An impulse per mass between two balls, and friction against their slip.</summary>
    private static void Push(Body a, Body b, double[] n, double j, Func<double, double> friction, bool isFlat)
    {
        double[] v = [a.Vx - b.Vx, a.Vy - b.Vy, a.Vz - b.Vz];
        double[] w = [a.Wx + b.Wx, a.Wy + b.Wy, a.Wz + b.Wz];
        var turn = Cross(w, n);
        double[] c = [v[0] + BallRadius * turn[0], v[1] + BallRadius * turn[1], v[2] + BallRadius * turn[2]];
        var along = Dot(c, n);
        c = [c[0] - along * n[0], c[1] - along * n[1], c[2] - along * n[2]];
        var slip = Math.Sqrt(Dot(c, c));
        var p = slip > 0 ? friction(slip) / slip : 0;
        double[] f = [-p * c[0], -p * c[1], -p * c[2]];
        a.Vx += -j * n[0] + f[0];
        a.Vy += -j * n[1] + f[1];
        b.Vx += j * n[0] - f[0];
        b.Vy += j * n[1] - f[1];
        if (!isFlat)
        {
            a.Vz += -j * n[2] + f[2];
            b.Vz += j * n[2] - f[2];
        }
        var spin = Cross(n, f);
        foreach (var ball in (Body[])[a, b])
        {
            ball.Wx += 2.5 / BallRadius * spin[0];
            ball.Wy += 2.5 / BallRadius * spin[1];
            ball.Wz += 2.5 / BallRadius * spin[2];
        }
    }

    /// <summary>
    /// Springs with damping (Hertz; Tsuji, Tanaka &amp; Ishida 1992), by steps of half a microsecond, until nothing overlaps.
    /// </summary>
    private void MeetSoftly(Body first, Body second, List<Body> all)
    {
        const double h = 5e-7,
            stiffness = 5.0e8;
        var log = Math.Log(_c.BallRestitution);
        var alpha = -Math.Sqrt(5) * log / Math.Sqrt(log * log + Math.PI * Math.PI);
        // Back to where nothing overlapped yet, as near as a step is.
        foreach (var b in all)
            if (!b.Gone && (b.X, b.Y, b.Z) != (b.PastX, b.PastY, b.PastZ) && !b.Flies)
                (b.X, b.Y) = (b.PastX, b.PastY);
        Contacts++;
        var left = (int)(Dt / h);
        for (var step = 0; step < 60_000; step++)
        {
            var any = false;
            for (var i = 0; i < all.Count; i++)
                for (var k = i + 1; k < all.Count; k++)
                {
                    var (a, b) = (all[i], all[k]);
                    if (a.Gone || b.Gone || Math.Abs(a.X - b.X) > 0.06 || Math.Abs(a.Y - b.Y) > 0.06)
                        continue;
                    var overlap = -Between(a, b);
                    if (overlap <= 0)
                        continue;
                    any = true;
                    var force =
                        stiffness * Math.Pow(overlap, 1.5)
                        + alpha * Math.Sqrt(BallMass / 2 * stiffness) * Math.Pow(overlap, 0.25) * Approach(a, b);
                    if (force <= 0)
                        continue;
                    var length = Distance(b.X - a.X, b.Y - a.Y, b.Z - a.Z);
                    double[] n = [(b.X - a.X) / length, (b.Y - a.Y) / length, (b.Z - a.Z) / length];
                    var j = force / BallMass * h;
                    Push(a, b, n, j, slip => Math.Min(Friction(slip) * j * Math.Min(1, slip / 0.002), slip / 7), !(a.Flies || b.Flies));
                    foreach (var o in (Body[])[a, b])
                        if (o.Z <= 0 && o.Vz < 0)
                            Land(o, -o.Vz);
                }
            if (!any && step > left)
                break;
            foreach (var b in all.Where(b => b.Moving))
                Travel(b, h);
            if (step % 20 == 0)
                foreach (var b in all.Where(b => b.Moving))
                    MeetTable(b);
        }
        foreach (var b in all)
            (b.PastX, b.PastY, b.PastZ) = (b.X, b.Y, b.Z);
    }

    private void MeetTable(Body b)
    {
        if (b.Z >= 0.7 * BallRadius)
        {
            b.Off = b.X < 0 || b.X > Length || b.Y < 0 || b.Y > Width;
            return;
        }
        // Noses first: a step that goes a little into one near its end would else be taken for a touch of the jaw beyond.
        foreach (var nose in shape.Noses)
        {
            var upright = nose.From.X == nose.To.X;
            var (at, along) = upright ? (nose.From.X, b.Y) : (nose.From.Y, b.X);
            var (from, to) = upright ? (nose.From.Y, nose.To.Y) : (nose.From.X, nose.To.X);
            if (along < from || along > to)
                continue;
            var sign = at == 0 ? -1 : 1;
            var gap = sign * (at - (upright ? b.X : b.Y)) - BallRadius;
            var past = sign * (at - (upright ? b.PastX : b.PastY)) - BallRadius;
            // One that comes down from above a nose may be well within it.
            if (gap < 0 && gap > -BallRadius)
                MeetCushion(b, gap, past, () => upright ? (sign, 0) : (0, sign));
        }
        foreach (var pocket in shape.PocketShapes)
        {
            if (Distance(b.X - pocket.Drop.X, b.Y - pocket.Drop.Y) < pocket.Drop.Radius)
            {
                (b.Pocket, b.Vx, b.Vy, b.Wx, b.Wy, b.Wz) = (pocket.Pocket, 0, 0, 0, 0, 0);
                Contacts++;
                return;
            }
            foreach (var jaw in (Circle[])[pocket.JawA, pocket.JawB])
            {
                var gap = Distance(b.X - jaw.X, b.Y - jaw.Y) - jaw.Radius - BallRadius;
                var past = Distance(b.PastX - jaw.X, b.PastY - jaw.Y) - jaw.Radius - BallRadius;
                if (gap < 0)
                    MeetCushion(b, gap, past, () => (jaw.X - b.X, jaw.Y - b.Y));
            }
        }
    }

    private void MeetCushion(Body b, double gap, double past, Func<(double X, double Y)> towards)
    {
        var back = Dt * gap / (gap - past);
        if (!(back >= 0 && back <= Dt))
            back = 0;
        (b.X, b.Y) = (b.X - back * b.Vx, b.Y - back * b.Vy);
        var (kx, ky) = towards();
        var length = Distance(kx, ky);
        (kx, ky) = (kx / length, ky / length);
        if (b.Vx * kx + b.Vy * ky > 0)
        {
            Contacts++;
            var raised = _c with { NoseSine = Math.Max(0, _c.NoseSine - b.Z / BallRadius) };
            var m = Cushion(new(b.Vx, b.Vy, b.Wx, b.Wy, b.Wz), kx, ky, raised, CushionSteps);
            (b.Vx, b.Vy, b.Wx, b.Wy, b.Wz) = (m.Vx, m.Vy, m.Wx, m.Wy, m.Wz);
        }
        (b.X, b.Y) = (b.X + back * b.Vx, b.Y + back * b.Vy);
    }

    /// <summary>The cushion by equal small steps of impulse at the nose, in full three-dimensional vectors.</summary>
    public static BallMotion Cushion(BallMotion m, double kx, double ky, Conditions c, int steps)
    {
        var (s, q) = (c.NoseSine, Math.Sqrt(1 - c.NoseSine * c.NoseSine));
        var (vx, vy, wx, wy, wz) = (m.Vx, m.Vy, m.Wx, m.Wy, m.Wz);
        var approach = q * (vx * kx + vy * ky);
        var dp = approach * 1.2 / steps;
        double work = 0,
            given = 0,
            total = -1;
        while (total < 0 || given < c.CushionRestitution * c.CushionRestitution * total)
        {
            var (nx, ny, nz) = (q * kx, q * ky, s);
            // Slip at the nose: v + ω × R·n, less its part along n.
            var (sx, sy, sz) = (
                vx + BallRadius * (wy * nz - wz * ny),
                vy + BallRadius * (wz * nx - wx * nz),
                BallRadius * (wx * ny - wy * nx)
            );
            var along = sx * nx + sy * ny + sz * nz;
            (sx, sy, sz) = (sx - along * nx, sy - along * ny, sz - along * nz);
            var slip = Math.Sqrt(sx * sx + sy * sy + sz * sz);
            var (fx, fy, fz) =
                slip > 0 ? (-c.CushionFriction * sx / slip, -c.CushionFriction * sy / slip, -c.CushionFriction * sz / slip) : (0, 0, 0);
            // Slip at the cloth: v + ω × (−R·ẑ).
            var (ux, uy) = (vx - BallRadius * wy, vy + BallRadius * wx);
            var drag = Math.Sqrt(ux * ux + uy * uy);
            var load = Math.Max(0, s - fz);
            var (gx, gy) = drag > 0 ? (-c.SlidingFriction * load * ux / drag, -c.SlidingFriction * load * uy / drag) : (0, 0);
            var before = q * (vx * kx + vy * ky);
            vx += dp * (-nx + fx + gx);
            vy += dp * (-ny + fy + gy);
            var turn = 2.5 / BallRadius * dp;
            // r × F at the nose (r = R·n) and at the cloth (r = −R·ẑ), over the moment of inertia 2R²/5.
            wx += turn * (ny * fz - nz * fy + gy);
            wy += turn * (nz * fx - nx * fz - gx);
            wz += turn * (nx * fy - ny * fx);
            var step = dp * (before + q * (vx * kx + vy * ky)) / 2;
            if (total < 0)
            {
                work += step;
                if (q * (vx * kx + vy * ky) <= 0)
                    total = work;
            }
            else
                given -= step;
        }
        return new(vx, vy, wx, wy, wz);
    }
}
