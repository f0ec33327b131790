using System.Runtime.CompilerServices;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Physics;

/// <summary>
/// Integrates the motion of balls that press on one another at the same time (packs, plants, sets): damped springs between all of them, by
/// small steps, from the first touch until nothing overlaps. docs/model.md, "Several at once". It knows nothing of events:
/// <see cref="Simulator"/> decides which balls take part, and goes on from where they end.
/// </summary>
/// <remarks>One instance serves one thread, without allocating.</remarks>
/// <param name="step">Time step, s.</param>
internal sealed class ClusterSolver(TableShape shape, Cloth cloth, CushionContact cushion, double step)
{
    /// <summary>Stiffness of the contact of two balls of phenolic resin, N/m^1.5 (Hertz). docs/model.md.</summary>
    private const double Stiffness = 5.0e8;

    /// <summary>Friction of a contact grows with the slip up to this, m/s.</summary>
    private const double SmoothSlip = 2e-3;

    /// <summary>Distance beyond which a third ball is not met during a contact, m.</summary>
    public const double Far = 1.5e-3;

    /// <summary>Slower contacts are settled pair by pair, m/s: their order changes where a ball ends by a millimetre or two.</summary>
    public const double SlowestApproach = 0.02;

    /// <summary>Longest time that is integrated in one go, s; then the balls that take part are determined anew.</summary>
    public const double Segment = 0.5e-3;

    /// <summary>Overlap that counts as none when a cluster is about to end, m.</summary>
    private const double NoOverlap = 1e-6;

    private const int MostPairs = Ball.Count * (Ball.Count - 1) / 2;

    /// <summary>The cloth acts once in this many steps: it is gentle beside the contacts.</summary>
    private const int StepsPerDrag = 4;

    private readonly Conditions _conditions = shape.Conditions;
    private readonly PocketShape[] _pockets = [.. shape.PocketShapes];
    private readonly Noses _noses = new(shape);

    /// <summary>Force and damping per mass; the damping gives a pair alone its restitution.</summary>
    private readonly double _push = Stiffness / BallMass,
        _loss = Damping(shape.Conditions.BallRestitution) * Math.Sqrt(Stiffness / (2 * BallMass));

    private readonly SlipFriction _friction = SlipFriction.Of(shape.Conditions);

    private readonly ClusterBall[] _balls = new ClusterBall[Ball.Count];
    private readonly int[] _slots = new int[Ball.Count];
    private readonly ClusterPair[] _pairs = new ClusterPair[MostPairs];
    private int _pairCount;
    private ShotRecord? _record;

    /// <summary>Number of balls in the cluster.</summary>
    public int Count { get; private set; }

    /// <summary>Number of steps of the last segment.</summary>
    public int Steps { get; private set; }

    /// <summary>Whether any balls still press on one another after the last segment.</summary>
    public bool IsPressed { get; private set; }

    /// <summary>Empties the cluster.</summary>
    public void Clear() => Count = 0;

    /// <summary>Adds a ball, brought to the time at which the segment starts.</summary>
    public void Add(int slot, in MovingBall ball)
    {
        const double edge = 2 * BallRadius;
        var (vx, vy, wx, wy, wz, vz) = ball.Motion;
        _slots[Count] = slot;
        _balls[Count++] = new()
        {
            X = ball.X,
            Y = ball.Y,
            Z = ball.Z,
            Vx = vx,
            Vy = vy,
            Vz = vz,
            Wx = wx,
            Wy = wy,
            Wz = wz,
            IsAwake = ball.Phase != Phase.AtRest,
            IsNearNose = ball.X < edge || ball.X > Length - edge || ball.Y < edge || ball.Y > Width - edge,
        };
    }

    /// <summary>Slot of the i-th ball.</summary>
    public int SlotOf(int i) => _slots[i];

    /// <summary>The i-th ball.</summary>
    public ref readonly ClusterBall At(int i) => ref _balls[i];

    /// <summary>Duration of the contact of two balls that meet at a speed (m/s), s: Hertz.</summary>
    public static double ContactTime(double approach) =>
        2.9432 * Math.Pow(5 * BallMass * approach * approach / (8 * Stiffness), 0.4) / approach;

    /// <summary>Integrates until nothing presses, or the time is over.</summary>
    /// <param name="start">Time of the balls, s.</param>
    /// <param name="end">Time at which to stop, s; at least one step is made.</param>
    /// <param name="held">Slots that press already, one bit each: they are not moved apart first.</param>
    /// <returns>The time reached, s.</returns>
    public double Run(double start, double end, uint held, ShotRecord? record)
    {
        _record = record;
        FindPairs();
        Separate(held);
        var energy = Energy(withPressed: true);
        var most = Math.Max(1, (int)Math.Ceiling((end - start) / step));
        (IsPressed, Steps) = (true, 0);
        while (IsPressed && Steps < most)
        {
            Steps++;
            Drift();
            IsPressed = Press(start + (Steps - 1) * step);
            Kick();
            if (Steps % StepsPerDrag == 0)
                Drag(StepsPerDrag * step);
        }
        Drag(Steps % StepsPerDrag * step);
        // Finite steps can add energy that no contact gives; take it out again.
        var motion = Energy(withPressed: false);
        var gained = Energy(withPressed: true) - energy;
        if (gained > 0 && motion > gained)
            Slow(Math.Sqrt(1 - gained / motion));
        foreach (ref readonly var pair in _pairs.AsSpan(0, _pairCount))
            if (pair.Event >= 0 && record is not null)
                record.Events[pair.Event] = record.Events[pair.Event] with { Speed = pair.Fastest };
        return start + Steps * step;
    }

    /// <summary>Slots of the balls that press on another, one bit each.</summary>
    public uint Pressing
    {
        get
        {
            var pressing = 0u;
            foreach (ref readonly var pair in _pairs.AsSpan(0, _pairCount))
                if (pair.Presses)
                    pressing |= 1u << _slots[pair.A] | 1u << _slots[pair.B];
            return pressing;
        }
    }

    /// <summary>Whether what still presses is so gentle that the law of single contacts settles it as well.</summary>
    public bool IsQuiet
    {
        get
        {
            foreach (ref readonly var pair in _pairs.AsSpan(0, _pairCount))
                if (pair.Presses && (Approach(pair) is < -SlowestApproach or > SlowestApproach || Overlap(pair) > NoOverlap))
                    return false;
            return true;
        }
    }

    /// <summary>Elastic energy of an overlap (m) by Hertz's law, per unit mass, J/kg.</summary>
    public double Pressed(double overlap) => 0.4 * _push * overlap * overlap * Math.Sqrt(overlap);

    /// <summary>α of Tsuji, Tanaka &amp; Ishida, Powder Technol. 71 (1992) 239, for a restitution.</summary>
    private static double Damping(double restitution)
    {
        var log = Math.Log(Math.Max(restitution, 1e-3));
        return -Math.Sqrt(5) * log / Math.Sqrt(log * log + Math.PI * Math.PI);
    }

    private double Overlap(in ClusterPair pair)
    {
        ref readonly var a = ref _balls[pair.A];
        ref readonly var b = ref _balls[pair.B];
        var (dx, dy, dz) = (b.X - a.X, b.Y - a.Y, b.Z - a.Z);
        return 2 * BallRadius - Math.Sqrt(dx * dx + dy * dy + dz * dz);
    }

    private double Approach(in ClusterPair pair)
    {
        ref readonly var a = ref _balls[pair.A];
        ref readonly var b = ref _balls[pair.B];
        return ((a.Vx - b.Vx) * (b.X - a.X) + (a.Vy - b.Vy) * (b.Y - a.Y) + (a.Vz - b.Vz) * (b.Z - a.Z)) / (2 * BallRadius);
    }

    private void FindPairs()
    {
        _pairCount = 0;
        const double reach = 2 * BallRadius + 2 * Far;
        for (var a = 0; a < Count; a++)
            for (var b = a + 1; b < Count; b++)
            {
                var (dx, dy) = (_balls[b].X - _balls[a].X, _balls[b].Y - _balls[a].Y);
                var fastest = Math.Abs(_balls[a].Vx) + Math.Abs(_balls[a].Vy) + Math.Abs(_balls[b].Vx) + Math.Abs(_balls[b].Vy);
                var more = reach + Segment * fastest;
                if (dx * dx + dy * dy < more * more)
                    _pairs[_pairCount++] = new()
                    {
                        A = (byte)a,
                        B = (byte)b,
                        Event = -1,
                    };
            }
    }

    /// <summary>
    /// Moves touching balls apart by the tiny overlap that events neglect, which springs would turn into energy; but not those that press
    /// already.
    /// </summary>
    private void Separate(uint held)
    {
        const int passes = 8;
        var moved = true;
        for (var pass = 0; pass < passes && moved; pass++)
        {
            moved = false;
            foreach (ref readonly var pair in _pairs.AsSpan(0, _pairCount))
            {
                if ((held >> _slots[pair.A] & held >> _slots[pair.B] & 1) != 0 || Overlap(pair) is not (> 0 and var overlap))
                    continue;
                moved = true;
                ref var a = ref _balls[pair.A];
                ref var b = ref _balls[pair.B];
                var share = 0.5 * overlap / (2 * BallRadius - overlap);
                var (dx, dy) = (share * (b.X - a.X), share * (b.Y - a.Y));
                (a.X, a.Y, b.X, b.Y) = (a.X - dx, a.Y - dy, b.X + dx, b.Y + dy);
            }
        }
    }

    /// <summary>Energy of the balls' motion and height, and of what is pressed if asked for, per unit mass, J/kg.</summary>
    private double Energy(bool withPressed)
    {
        var energy = 0.0;
        if (withPressed)
            foreach (ref readonly var pair in _pairs.AsSpan(0, _pairCount))
                if (Overlap(pair) is > 0 and var overlap)
                    energy += Pressed(overlap);
        foreach (ref readonly var s in _balls.AsSpan(0, Count))
            energy += new BallMotion(s.Vx, s.Vy, s.Wx, s.Wy, s.Wz, s.Vz).Energy + cloth.Gravity * s.Z;
        return energy;
    }

    private void Slow(double factor)
    {
        foreach (ref var s in _balls.AsSpan(0, Count))
            (s.Vx, s.Vy, s.Vz, s.Wx, s.Wy, s.Wz) = (
                s.Vx * factor,
                s.Vy * factor,
                s.Vz * factor,
                s.Wx * factor,
                s.Wy * factor,
                s.Wz * factor
            );
    }

    private void Drift()
    {
        foreach (ref var s in _balls.AsSpan(0, Count))
        {
            if (!s.IsAwake)
                continue;
            s.X += step * s.Vx;
            s.Y += step * s.Vy;
            if (s.IsLifted)
                Rise(ref s, step);
        }
    }

    /// <summary>Moves a ball up or down, and lands it on the bed.</summary>
    private void Rise(ref ClusterBall s, double time)
    {
        s.Z += time * s.Vz;
        s.Vz -= time * cloth.Gravity;
        if (s.Z > 0 || s.Vz > 0)
            return;
        var landed = Landing.Of(new(s.Vx, s.Vy, s.Wx, s.Wy, s.Wz), -s.Vz, _conditions);
        (s.Vx, s.Vy, s.Wx, s.Wy, s.Vz, s.Z) = (landed.Vx, landed.Vy, landed.Wx, landed.Wy, landed.Vz, 0);
    }

    /// <summary>Sums the forces of all contacts from the same velocities, so that their order does not matter.</summary>
    /// <returns>Whether any balls press on one another.</returns>
    private bool Press(double time)
    {
        var any = false;
        foreach (ref var pair in _pairs.AsSpan(0, _pairCount))
        {
            ref var a = ref _balls[pair.A];
            ref var b = ref _balls[pair.B];
            if (!a.IsAwake && !b.IsAwake)
                continue;
            var (dx, dy, dz) = (b.X - a.X, b.Y - a.Y, b.Z - a.Z);
            var square = dx * dx + dy * dy + dz * dz;
            if (square >= 4 * BallRadius * BallRadius)
            {
                pair.Presses = false;
                continue;
            }
            pair.Presses = any = true;
            var distance = Math.Sqrt(square);
            PressOn(ref pair, ref a, ref b, dx / distance, dy / distance, dz / distance, 2 * BallRadius - distance, time);
        }
        return any;
    }

    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    private void PressOn(
        ref ClusterPair pair,
        ref ClusterBall a,
        ref ClusterBall b,
        double nx,
        double ny,
        double nz,
        double overlap,
        double time
    )
    {
        var (rx, ry, rz) = (a.Vx - b.Vx, a.Vy - b.Vy, a.Vz - b.Vz);
        var approach = rx * nx + ry * ny + rz * nz;
        if (approach > Simulator.WorthRecording && _record is not null)
            Write(ref pair, a, b, nx, ny, nz, approach, time);
        var root = Math.Sqrt(overlap);
        var push = _push * overlap * root + _loss * Math.Sqrt(root) * approach;
        (a.IsAwake, b.IsAwake) = (true, true);
        if (push <= 0)
            return;
        var (wx, wy, wz) = (BallRadius * (a.Wx + b.Wx), BallRadius * (a.Wy + b.Wy), BallRadius * (a.Wz + b.Wz));
        var cx = rx + (wy * nz - wz * ny) - approach * nx;
        var cy = ry + (wz * nx - wx * nz) - approach * ny;
        var cz = rz + (wx * ny - wy * nx) - approach * nz;
        var slip = Math.Sqrt(cx * cx + cy * cy + cz * cz);
        var (fx, fy, fz) = (0.0, 0.0, 0.0);
        if (slip > 0)
        {
            var friction = Math.Min(_friction.At(slip) * push * Math.Min(1, slip / SmoothSlip), slip / (7 * step));
            (fx, fy, fz) = (friction * cx / slip, friction * cy / slip, friction * cz / slip);
        }
        // Balls that are both on the bed stay on it.
        var (ix, iy, iz) = (push * nx + fx, push * ny + fy, a.IsLifted || b.IsLifted ? push * nz + fz : 0);
        a.Ax -= ix;
        a.Ay -= iy;
        a.Az -= iz;
        b.Ax += ix;
        b.Ay += iy;
        b.Az += iz;
        const double k = 5 / (2 * BallRadius);
        var (tx, ty, tz) = (-k * (ny * fz - nz * fy), -k * (nz * fx - nx * fz), -k * (nx * fy - ny * fx));
        a.Tx += tx;
        a.Ty += ty;
        a.Tz += tz;
        b.Tx += tx;
        b.Ty += ty;
        b.Tz += tz;
    }

    private void Write(
        ref ClusterPair pair,
        in ClusterBall a,
        in ClusterBall b,
        double nx,
        double ny,
        double nz,
        double approach,
        double time
    )
    {
        pair.Fastest = Math.Max(pair.Fastest, approach);
        if (pair.Event >= 0)
            return;
        var isA = Math.Abs(a.Vx * nx + a.Vy * ny + a.Vz * nz) >= Math.Abs(b.Vx * nx + b.Vy * ny + b.Vz * nz);
        var (runner, other) = isA ? (pair.A, pair.B) : (pair.B, pair.A);
        pair.Event = _record!.Events.Count;
        _record.Events.Add(
            new(time, ShotEventKind.Ball, _slots[runner], _slots[other], _balls[runner].X, _balls[runner].Y, null, approach)
        );
    }

    /// <summary>Applies the forces of the contacts, and the noses.</summary>
    private void Kick()
    {
        foreach (ref var s in _balls.AsSpan(0, Count))
        {
            if (!s.IsAwake)
                continue;
            s.Vx += step * s.Ax;
            s.Vy += step * s.Ay;
            s.Wx += step * s.Tx;
            s.Wy += step * s.Ty;
            s.Wz += step * s.Tz;
            if (s.Az != 0)
                KickUp(ref s, step);
            (s.Ax, s.Ay, s.Az, s.Tx, s.Ty, s.Tz) = (0, 0, 0, 0, 0, 0);
            if (s.IsNearNose && s.Z < Landing.OverAll)
                OffNoses(ref s);
        }
    }

    private void KickUp(ref ClusterBall s, double time)
    {
        s.Vz += time * s.Az;
        if (s.Z > 0 || s.Vz >= 0)
            return;
        var pressed = Landing.Of(new(s.Vx, s.Vy, s.Wx, s.Wy, s.Wz), -s.Vz, _conditions);
        (s.Vx, s.Vy, s.Wx, s.Wy, s.Vz) = (pressed.Vx, pressed.Vy, pressed.Wx, pressed.Wy, pressed.Vz);
    }

    /// <summary>Applies the friction of the cloth against the slip of the balls on it.</summary>
    private void Drag(double time)
    {
        foreach (ref var s in _balls.AsSpan(0, Count))
        {
            if (!s.IsAwake || s.IsLifted)
                continue;
            var (ux, uy) = (s.Vx - BallRadius * s.Wy, s.Vy + BallRadius * s.Wx);
            var slip = Math.Sqrt(ux * ux + uy * uy);
            if (slip == 0)
                continue;
            var friction = Math.Min(cloth.Slide * time, 2 * slip / 7) / slip;
            (ux, uy) = (friction * ux, friction * uy);
            const double k = 5 / (2 * BallRadius);
            (s.Vx, s.Vy) = (s.Vx - ux, s.Vy - uy);
            (s.Wx, s.Wy) = (s.Wx - k * uy, s.Wy + k * ux);
        }
    }

    /// <summary>Rebounds a ball that runs into a nose or a jaw during the contact.</summary>
    private void OffNoses(ref ClusterBall s)
    {
        if (s.X < BallRadius && _noses.Has(0, s.X, s.Y))
            Off(ref s, -1, 0);
        if (s.X > Length - BallRadius && _noses.Has(1, s.X, s.Y))
            Off(ref s, 1, 0);
        if (s.Y < BallRadius && _noses.Has(2, s.X, s.Y))
            Off(ref s, 0, -1);
        if (s.Y > Width - BallRadius && _noses.Has(3, s.X, s.Y))
            Off(ref s, 0, 1);
        foreach (var pocket in _pockets)
        {
            var mouth = pocket.Mouth;
            if (s.X < mouth.MinX || s.X > mouth.MaxX || s.Y < mouth.MinY || s.Y > mouth.MaxY)
                continue;
            OffJaw(ref s, pocket.JawA.X, pocket.JawA.Y, pocket.JawA.Radius);
            OffJaw(ref s, pocket.JawB.X, pocket.JawB.Y, pocket.JawB.Radius);
        }
    }

    private void OffJaw(ref ClusterBall s, double x, double y, double radius)
    {
        var (dx, dy) = (x - s.X, y - s.Y);
        var distance = Math.Sqrt(dx * dx + dy * dy);
        if (distance < radius + BallRadius)
            Off(ref s, dx / distance, dy / distance);
    }

    private void Off(ref ClusterBall s, double kx, double ky)
    {
        if (s.Vx * kx + s.Vy * ky <= 0)
            return;
        var (vx, vy, wx, wy, wz, vz) = cushion.Rebound(new(s.Vx, s.Vy, s.Wx, s.Wy, s.Wz, s.Vz), kx, ky, s.Z);
        (s.Vx, s.Vy, s.Vz, s.Wx, s.Wy, s.Wz) = (vx, vy, vz, wx, wy, wz);
    }
}

/// <summary>A ball in a cluster: place (m), velocity (m/s), spin (rad/s), and the accelerations of this step.</summary>
internal struct ClusterBall
{
    public double X,
        Y,
        Z,
        Vx,
        Vy,
        Vz,
        Wx,
        Wy,
        Wz;
    public double Ax,
        Ay,
        Az,
        Tx,
        Ty,
        Tz;
    public bool IsAwake,
        IsNearNose;

    public readonly bool IsLifted => Z > 0 || Vz != 0;
}

/// <summary>Two balls of a cluster that are near one another.</summary>
internal struct ClusterPair
{
    public byte A,
        B;
    public bool Presses;

    /// <summary>Index of their contact among the events of the record; −1 if there is none.</summary>
    public int Event;
    public double Fastest;
}
