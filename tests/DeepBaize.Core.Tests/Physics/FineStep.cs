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
            Vx,
            Vy,
            Wx,
            Wy,
            Wz;
        public Pocket? Pocket;
        internal double Ax,
            Ay,
            PastX,
            PastY;
        internal bool Moving => Pocket is null && (Vx != 0 || Vy != 0 || Wx != 0 || Wy != 0);
    }

    public int Contacts { get; private set; }

    private readonly Conditions _c = shape.Conditions;

    public List<Body> Play(Layout layout, Strike strike, double most = 60)
    {
        var bodies = layout
            .Balls.Select(b => new Body
            {
                Ball = b.Ball,
                X = b.X,
                Y = b.Y,
            })
            .ToList();
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
        for (var t = 0.0; t < most && bodies.Any(b => b.Moving); t += Dt)
            Step(bodies);
        return bodies;
    }

    private void Step(List<Body> bodies)
    {
        foreach (var b in bodies)
        {
            (b.PastX, b.PastY) = (b.X, b.Y);
            if (b.Moving)
                Travel(b, Dt);
        }
        for (var i = 0; i < bodies.Count; i++)
        {
            var b = bodies[i];
            if (!b.Moving)
                continue;
            for (var k = 0; k < bodies.Count; k++)
                if (k != i && bodies[k].Pocket is null && (k > i || !bodies[k].Moving))
                    MeetBall(b, bodies[k]);
            MeetTable(b);
        }
    }

    private void Travel(Body b, double dt)
    {
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
                (b.Ax, b.Ay) = (-slow / dt * b.Vx / speed, -slow / dt * b.Vy / speed);
                b.X += b.Vx * dt + b.Ax * dt * dt / 2;
                b.Y += b.Vy * dt + b.Ay * dt * dt / 2;
                (b.Vx, b.Vy) = (b.Vx * (1 - slow / speed), b.Vy * (1 - slow / speed));
            }
            (b.Wx, b.Wy) = (-b.Vy / BallRadius, b.Vx / BallRadius);
        }
        b.Wz = Math.Sign(b.Wz) * Math.Max(0, Math.Abs(b.Wz) - _c.SpinDeceleration * dt);
    }

    private static double Distance(double x, double y) => Math.Sqrt(x * x + y * y);

    private void MeetBall(Body a, Body b)
    {
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

    private void MeetTable(Body b)
    {
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
            if (gap < 0 && gap > -0.01)
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
            var m = Cushion(new(b.Vx, b.Vy, b.Wx, b.Wy, b.Wz), kx, ky, _c, CushionSteps);
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
