using System.Numerics;
using System.Runtime.CompilerServices;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Physics;

/// <summary>
/// Contacts that are not alone: packs, plants, sets. The balls press on one another like springs, all at once, by small steps, from the
/// first touch until nothing overlaps; then the simulator goes on from event to event. docs/model.md, "Several at once".
/// </summary>
public sealed partial class Simulator
{
    /// <summary>N/m^1.5: Hertz's contact of two balls of phenolic resin. docs/model.md.</summary>
    private const double Stiffness = 5.0e8;

    /// <summary>Friction of a contact grows with the slip up to this, m/s.</summary>
    private const double SmoothSlip = 2e-3;

    /// <summary>
    /// Slower contacts are settled pair by pair, m/s: what their order makes different moves a ball by a millimetre or two.
    /// </summary>
    private const double SoftFrom = 0.02;

    /// <summary>
    /// A third ball is met during a contact if it is nearer than this share of the way that the ball towards it goes in the time of one:
    /// half of that way, for the speed grows from nothing, and a little more.
    /// </summary>
    private const double Meanwhile = 0.6;

    /// <summary>No third ball that far off is met during a contact, m.</summary>
    private const double Far = 1.5e-3;

    /// <summary>Seconds; then it is looked anew who takes part, and other balls have their turn.</summary>
    private const double Segment = 0.5e-3;

    /// <summary>So many segments on end, and what still presses is left to the law of single contacts.</summary>
    private const int MostSegments = 60;

    private const int MostPairs = Ball.Count * (Ball.Count - 1) / 2;

    /// <summary>A ball that was pressed but has not gone so far has not moved, m.</summary>
    private const double Shifted = 1e-10;

    /// <summary>The cloth is so gentle beside the contacts that it has its turn once in so many steps.</summary>
    private const int StepsPerDrag = 4;

    /// <summary>The step, s.</summary>
    private readonly double _softStep;

    /// <summary>Per mass: of the force, and of its damping, which gives a pair alone the restitution it has.</summary>
    private readonly double _softPush,
        _softLoss;

    private readonly SlipFriction _softFriction;

    /// <summary>Balls of a cluster that goes on, a bit each, from when, and for how many segments it has.</summary>
    private uint _cluster;
    private double _clusterTime;
    private int _segments;

    private readonly Soft[] _soft = new Soft[Ball.Count];
    private readonly int[] _softSlot = new int[Ball.Count];
    private readonly SoftPair[] _pairs = new SoftPair[MostPairs];

    /// <summary>A ball in a cluster: where it is, how it moves, and what the contacts do to that in this step.</summary>
    private struct Soft
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
    private struct SoftPair
    {
        public byte A,
            B;
        public bool Presses;

        /// <summary>Of what was written down of it, in the record; −1 if nothing.</summary>
        public int Event;
        public double Fastest;
    }

    /// <summary>α of Tsuji, Tanaka &amp; Ishida, Powder Technol. 71 (1992) 239, for a restitution.</summary>
    private static double Damping(double restitution)
    {
        var log = Math.Log(Math.Max(restitution, 1e-3));
        return -Math.Sqrt(5) * log / Math.Sqrt(log * log + Math.PI * Math.PI);
    }

    /// <summary>How long a contact of two balls lasts that meet at a speed (m/s), s: Hertz.</summary>
    public static double ContactTime(double approach) =>
        2.9432 * Math.Pow(5 * BallMass * approach * approach / (8 * Stiffness), 0.4) / approach;

    /// <summary>
    /// Whether no third ball is met while two that now meet are in contact; then the law of single contacts does.
    /// </summary>
    private bool IsAlone(int i, int j, double time)
    {
        ref var a = ref _balls[i];
        ref var b = ref _balls[j];
        a.At(time, out var ax, out var ay, out _, out _);
        b.At(time, out var bx, out var by, out _, out _);
        var near = (NearTo(ax, ay) | NearTo(bx, by)) & ~(1u << i | 1u << j);
        if (near == 0)
            return true;
        // As it would be with no third ball.
        var (first, second) = (a, b);
        first.Advance(time, _cloth);
        second.Advance(time, _cloth);
        var (nx, ny, nz) = (second.X - first.X, second.Y - first.Y, second.Z - first.Z);
        var distance = Math.Sqrt(nx * nx + ny * ny + nz * nz);
        (nx, ny, nz) = (nx / distance, ny / distance, nz / distance);
        var approach =
            (first.Motion.Vx - second.Motion.Vx) * nx
            + (first.Motion.Vy - second.Motion.Vy) * ny
            + (first.Motion.Vz - second.Motion.Vz) * nz;
        if (approach < SoftFrom)
            return true;
        (first.Motion, second.Motion) = BallContact.Collide(first.Motion, second.Motion, nx, ny, nz, _conditions);
        var way = Meanwhile * ContactTime(approach);
        for (; near != 0; near &= near - 1)
        {
            var k = BitOperations.TrailingZeroCount(near);
            var third = _balls[k];
            third.Advance(time, _cloth);
            if (Meets(first, third, way) || Meets(second, third, way))
                return false;
        }
        return true;

        static bool Meets(in MovingBall ball, in MovingBall third, double way)
        {
            var (dx, dy, dz) = (third.X - ball.X, third.Y - ball.Y, third.Z - ball.Z);
            var distance = Math.Sqrt(dx * dx + dy * dy + dz * dz);
            var closing =
                (ball.Motion.Vx - third.Motion.Vx) * dx + (ball.Motion.Vy - third.Motion.Vy) * dy + (ball.Motion.Vz - third.Motion.Vz) * dz;
            return closing > 0 && distance - 2 * BallRadius < way * closing / distance;
        }
    }

    /// <summary>Whose way comes so near to a place that they may be met from there during a contact.</summary>
    private uint NearTo(double x, double y)
    {
        const double reach = 2 * BallRadius + Far;
        return WithinBox(x - reach, x + reach, y - reach, y + reach);
    }

    /// <summary>Two balls meet, and a third is in it.</summary>
    /// <returns>Until when the balls of the cluster have been brought.</returns>
    private double MeetSoftly(int i, int j, double time)
    {
        // One that goes on may be joined: what presses in it presses on.
        var held = _cluster;
        (_cluster, _clusterTime, _segments) = (held | 1u << i | 1u << j, time, 0);
        return GoOnSoftly(held);
    }

    /// <summary>One segment more of the cluster.</summary>
    /// <param name="held">Who presses already, a bit each.</param>
    private double GoOnSoftly(uint held)
    {
        var start = _clusterTime;
        var count = Gather(start);
        var pairs = PairsOf(count);
        PushApart(pairs, held);
        var energy = EnergyOf(count, pairs);
        var (steps, most) = (0, (int)Math.Ceiling((Math.Min(start + Segment, NextOfOthers()) - start) / _softStep));
        most = Math.Max(most, 1);
        var isPressed = true;
        while (isPressed && steps < most)
        {
            steps++;
            Drift(count);
            isPressed = Press(pairs, start + (steps - 1) * _softStep);
            Kick(count);
            if (steps % StepsPerDrag == 0)
                Drag(count, StepsPerDrag * _softStep);
        }
        Drag(count, steps % StepsPerDrag * _softStep);
        var end = start + steps * _softStep;
        // Small steps may give what no contact gives: energy never rises.
        var motion = EnergyOf(count, 0);
        var gained = EnergyOf(count, pairs) - energy;
        if (gained > 0 && motion > gained)
            Slow(count, Math.Sqrt(1 - gained / motion));
        foreach (ref readonly var pair in _pairs.AsSpan(0, pairs))
            if (pair.Event >= 0 && _record is not null)
                _record.Events[pair.Event] = _record.Events[pair.Event] with { Speed = pair.Fastest };
        _cluster = 0;
        // Whoever bounds the work counts events: a step is as much as two.
        EventCount += 2 * steps;
        if (isPressed && ++_segments < MostSegments && !IsQuiet(pairs))
        {
            _clusterTime = end;
            foreach (ref readonly var pair in _pairs.AsSpan(0, pairs))
                if (pair.Presses)
                    _cluster |= 1u << _softSlot[pair.A] | 1u << _softSlot[pair.B];
        }
        PutBack(count, start, end);
        if (isPressed && _cluster == 0)
            Settle(end);
        return end;
    }

    /// <summary>When something comes next that the cluster has no part in.</summary>
    private double NextOfOthers()
    {
        var next = double.PositiveInfinity;
        for (var i = 0; i < Count; i++)
            if ((_cluster >> i & 1) == 0)
                next = Math.Min(next, Math.Min(_ownTime[i], _pairTime[i]));
        return next;
    }

    /// <summary>Whether what still presses does so no harder than single contacts settle as well.</summary>
    private bool IsQuiet(int pairs)
    {
        foreach (ref readonly var pair in _pairs.AsSpan(0, pairs))
            if (pair.Presses && (Approach(pair) is < -SoftFrom or > SoftFrom || Overlap(pair) > 1e-6))
                return false;
        return true;
    }

    private double Overlap(in SoftPair pair)
    {
        ref readonly var a = ref _soft[pair.A];
        ref readonly var b = ref _soft[pair.B];
        var (dx, dy, dz) = (b.X - a.X, b.Y - a.Y, b.Z - a.Z);
        return 2 * BallRadius - Math.Sqrt(dx * dx + dy * dy + dz * dz);
    }

    private double Approach(in SoftPair pair)
    {
        ref readonly var a = ref _soft[pair.A];
        ref readonly var b = ref _soft[pair.B];
        return ((a.Vx - b.Vx) * (b.X - a.X) + (a.Vy - b.Vy) * (b.Y - a.Y) + (a.Vz - b.Vz) * (b.Z - a.Z)) / (2 * BallRadius);
    }

    /// <summary>
    /// Who may take part until the segment ends: those in it, and whoever may come near. Brought to this time, and taken out of the events.
    /// </summary>
    /// <returns>How many.</returns>
    private int Gather(double time)
    {
        var fastest = 0.0;
        for (var left = _cluster; left != 0; left &= left - 1)
            fastest = Math.Max(fastest, _balls[BitOperations.TrailingZeroCount(left)].Speed);
        var open = _cluster;
        while (open != 0)
        {
            var i = BitOperations.TrailingZeroCount(open);
            open &= open - 1;
            _balls[i].At(time, out var x, out var y, out _, out _);
            for (var k = 0; k < Count; k++)
            {
                if (_pocket[k] >= 0 || (_cluster >> k & 1) != 0)
                    continue;
                // A ball that rolls up from outside has been sent on with its events up to here, or is past them by less than a segment.
                var (dx, dy) = (_balls[k].X - x, _balls[k].Y - y);
                if (_balls[k].Phase != Phase.AtRest)
                {
                    _balls[k].At(time, out var xk, out var yk, out _, out _);
                    (dx, dy) = (xk - x, yk - y);
                }
                var reach = 2 * BallRadius + Far + Segment * (fastest + _balls[k].Speed);
                if (dx * dx + dy * dy > reach * reach)
                    continue;
                _cluster |= 1u << k;
                open |= 1u << k;
            }
        }
        var count = 0;
        for (var left = _cluster; left != 0; left &= left - 1)
        {
            var slot = BitOperations.TrailingZeroCount(left);
            Advance(slot, time);
            ref readonly var ball = ref _balls[slot];
            var (vx, vy, wx, wy, wz, vz) = ball.Motion;
            _softSlot[count] = slot;
            var edge = 2 * BallRadius;
            _soft[count++] = new()
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
        return count;
    }

    private int PairsOf(int count)
    {
        var pairs = 0;
        const double reach = 2 * BallRadius + 2 * Far;
        for (var a = 0; a < count; a++)
            for (var b = a + 1; b < count; b++)
            {
                var (dx, dy) = (_soft[b].X - _soft[a].X, _soft[b].Y - _soft[a].Y);
                var fastest = Math.Abs(_soft[a].Vx) + Math.Abs(_soft[a].Vy) + Math.Abs(_soft[b].Vx) + Math.Abs(_soft[b].Vy);
                var more = reach + Segment * fastest;
                if (dx * dx + dy * dy < more * more)
                    _pairs[pairs++] = new()
                    {
                        A = (byte)a,
                        B = (byte)b,
                        Event = -1,
                    };
            }
        return pairs;
    }

    /// <summary>
    /// Balls that touch may lie in one another by a hair that events neglect: as springs they would make energy of it. Not so those that
    /// press already, a bit each.
    /// </summary>
    private void PushApart(int pairs, uint held)
    {
        const int passes = 8;
        var moved = true;
        for (var pass = 0; pass < passes && moved; pass++)
        {
            moved = false;
            foreach (ref readonly var pair in _pairs.AsSpan(0, pairs))
            {
                if ((held >> _softSlot[pair.A] & held >> _softSlot[pair.B] & 1) != 0 || Overlap(pair) is not (> 0 and var overlap))
                    continue;
                moved = true;
                ref var a = ref _soft[pair.A];
                ref var b = ref _soft[pair.B];
                var share = 0.5 * overlap / (2 * BallRadius - overlap);
                var (dx, dy) = (share * (b.X - a.X), share * (b.Y - a.Y));
                (a.X, a.Y, b.X, b.Y) = (a.X - dx, a.Y - dy, b.X + dx, b.Y + dy);
            }
        }
    }

    /// <summary>Of the balls' motion, of their height and of what is pressed, per unit mass, J/kg.</summary>
    private double EnergyOf(int count, int pairs)
    {
        var energy = 0.0;
        foreach (ref readonly var pair in _pairs.AsSpan(0, pairs))
            if (Overlap(pair) is > 0 and var overlap)
                energy += Pressed(overlap);
        foreach (ref readonly var s in _soft.AsSpan(0, count))
            energy += new BallMotion(s.Vx, s.Vy, s.Wx, s.Wy, s.Wz, s.Vz).Energy + _cloth.Gravity * s.Z;
        return energy;
    }

    /// <summary>What a ball and those before it have pressed in one another in a cluster that goes on, J/kg.</summary>
    private double PressedEnergy(int i)
    {
        var energy = 0.0;
        for (var k = 0; k < i; k++)
        {
            var (dx, dy, dz) = (X(i) - X(k), Y(i) - Y(k), _balls[i].Z - _balls[k].Z);
            var overlap = 2 * BallRadius - Math.Sqrt(dx * dx + dy * dy + dz * dz);
            if (overlap > 0 && (_cluster >> i & _cluster >> k & 1) != 0)
                energy += Pressed(overlap);
        }
        return energy;
    }

    /// <summary>In an overlap, m, by Hertz's law, per unit mass, J/kg.</summary>
    private double Pressed(double overlap) => 0.4 * _softPush * overlap * overlap * Math.Sqrt(overlap);

    private void Slow(int count, double factor)
    {
        foreach (ref var s in _soft.AsSpan(0, count))
            (s.Vx, s.Vy, s.Vz, s.Wx, s.Wy, s.Wz) = (
                s.Vx * factor,
                s.Vy * factor,
                s.Vz * factor,
                s.Wx * factor,
                s.Wy * factor,
                s.Wz * factor
            );
    }

    private void Drift(int count)
    {
        var step = _softStep;
        foreach (ref var s in _soft.AsSpan(0, count))
        {
            if (!s.IsAwake)
                continue;
            s.X += step * s.Vx;
            s.Y += step * s.Vy;
            if (s.IsLifted)
                Rise(ref s, step);
        }
    }

    /// <summary>Up or down, and on the bed again.</summary>
    private void Rise(ref Soft s, double step)
    {
        s.Z += step * s.Vz;
        s.Vz -= step * _cloth.Gravity;
        if (s.Z > 0 || s.Vz > 0)
            return;
        var landed = Landing.Of(new(s.Vx, s.Vy, s.Wx, s.Wy, s.Wz), -s.Vz, _conditions);
        (s.Vx, s.Vy, s.Wx, s.Wy, s.Vz, s.Z) = (landed.Vx, landed.Vy, landed.Wx, landed.Wy, landed.Vz, 0);
    }

    /// <summary>What all contacts do in this step, from the same velocities, so that no order of theirs counts.</summary>
    /// <returns>Whether any presses.</returns>
    private bool Press(int pairs, double time)
    {
        var any = false;
        foreach (ref var pair in _pairs.AsSpan(0, pairs))
        {
            ref var a = ref _soft[pair.A];
            ref var b = ref _soft[pair.B];
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
    private void PressOn(ref SoftPair pair, ref Soft a, ref Soft b, double nx, double ny, double nz, double overlap, double time)
    {
        var (rx, ry, rz) = (a.Vx - b.Vx, a.Vy - b.Vy, a.Vz - b.Vz);
        var approach = rx * nx + ry * ny + rz * nz;
        if (approach > WorthRecording && _record is not null)
            Write(ref pair, a, b, nx, ny, nz, approach, time);
        var root = Math.Sqrt(overlap);
        var push = _softPush * overlap * root + _softLoss * Math.Sqrt(root) * approach;
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
            var friction = Math.Min(_softFriction.At(slip) * push * Math.Min(1, slip / SmoothSlip), slip / (7 * _softStep));
            (fx, fy, fz) = (friction * cx / slip, friction * cy / slip, friction * cz / slip);
        }
        // Both on the bed, they stay there.
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

    private void Write(ref SoftPair pair, in Soft a, in Soft b, double nx, double ny, double nz, double approach, double time)
    {
        pair.Fastest = Math.Max(pair.Fastest, approach);
        if (pair.Event >= 0)
            return;
        var isA = Math.Abs(a.Vx * nx + a.Vy * ny + a.Vz * nz) >= Math.Abs(b.Vx * nx + b.Vy * ny + b.Vz * nz);
        var (runner, other) = isA ? (pair.A, pair.B) : (pair.B, pair.A);
        pair.Event = _record!.Events.Count;
        _record.Events.Add(
            new(time, ShotEventKind.Ball, _softSlot[runner], _softSlot[other], _soft[runner].X, _soft[runner].Y, null, approach)
        );
    }

    /// <summary>What the contacts do, and the noses.</summary>
    private void Kick(int count)
    {
        var step = _softStep;
        foreach (ref var s in _soft.AsSpan(0, count))
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

    private void KickUp(ref Soft s, double step)
    {
        s.Vz += step * s.Az;
        if (s.Z > 0 || s.Vz >= 0)
            return;
        var pressed = Landing.Of(new(s.Vx, s.Vy, s.Wx, s.Wy, s.Wz), -s.Vz, _conditions);
        (s.Vx, s.Vy, s.Wx, s.Wy, s.Vz) = (pressed.Vx, pressed.Vy, pressed.Wx, pressed.Wy, pressed.Vz);
    }

    /// <summary>The cloth, as ever: against the slip of the balls on it.</summary>
    private void Drag(int count, double time)
    {
        foreach (ref var s in _soft.AsSpan(0, count))
        {
            if (!s.IsAwake || s.IsLifted)
                continue;
            var (ux, uy) = (s.Vx - BallRadius * s.Wy, s.Vy + BallRadius * s.Wx);
            var slip = Math.Sqrt(ux * ux + uy * uy);
            if (slip == 0)
                continue;
            var friction = Math.Min(_cloth.Slide * time, 2 * slip / 7) / slip;
            (ux, uy) = (friction * ux, friction * uy);
            const double k = 5 / (2 * BallRadius);
            (s.Vx, s.Vy) = (s.Vx - ux, s.Vy - uy);
            (s.Wx, s.Wy) = (s.Wx - k * uy, s.Wy + k * ux);
        }
    }

    /// <summary>A ball of a cluster that runs into a nose or a jaw meanwhile.</summary>
    private void OffNoses(ref Soft s)
    {
        if (s.X < BallRadius && IsAtNose(0, s.X, s.Y))
            Off(ref s, -1, 0);
        if (s.X > Length - BallRadius && IsAtNose(1, s.X, s.Y))
            Off(ref s, 1, 0);
        if (s.Y < BallRadius && IsAtNose(2, s.X, s.Y))
            Off(ref s, 0, -1);
        if (s.Y > Width - BallRadius && IsAtNose(3, s.X, s.Y))
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

    private void OffJaw(ref Soft s, double x, double y, double radius)
    {
        var (dx, dy) = (x - s.X, y - s.Y);
        var distance = Math.Sqrt(dx * dx + dy * dy);
        if (distance < radius + BallRadius)
            Off(ref s, dx / distance, dy / distance);
    }

    private void Off(ref Soft s, double kx, double ky)
    {
        if (s.Vx * kx + s.Vy * ky <= 0)
            return;
        var (vx, vy, wx, wy, wz, vz) = _cushion.Rebound(new(s.Vx, s.Vy, s.Wx, s.Wy, s.Wz, s.Vz), kx, ky, s.Z);
        (s.Vx, s.Vy, s.Vz, s.Wx, s.Wy, s.Wz) = (vx, vy, vz, wx, wy, wz);
    }

    /// <summary>Back among the events, as they now move.</summary>
    private void PutBack(int count, double start, double end)
    {
        for (var m = 0; m < count; m++)
        {
            ref readonly var s = ref _soft[m];
            if (!s.IsAwake)
                continue;
            var slot = _softSlot[m];
            ref var ball = ref _balls[slot];
            var rested = ball.Phase == Phase.AtRest;
            var hasMoved = Math.Abs(s.X - ball.X) + Math.Abs(s.Y - ball.Y) + Math.Abs(s.Z - ball.Z) > Shifted;
            if (_record is not null && (hasMoved || !rested))
                Trace(slot, s, start, end);
            (ball.X, ball.Y, ball.Z) = (s.X, s.Y, s.Z);
            var wz = s.Z > 0 ? s.Wz : Math.CopySign(Math.Max(0, Math.Abs(s.Wz) - _cloth.Spin * (end - start)), s.Wz);
            ball.Motion = new(s.Vx, s.Vy, s.Wx, s.Wy, wz, s.Vz);
            // While it still presses it is for the cluster, and not asked what it would do by itself.
            GoOn(slot, end);
            if (rested && hasMoved && ball.Phase == Phase.AtRest)
                Stopped(slot, end);
            _stale |= 1u << slot;
        }
    }

    /// <summary>As if it had gone straight and evenly from where it was.</summary>
    private void Trace(int slot, in Soft s, double start, double end)
    {
        ref readonly var ball = ref _balls[slot];
        var time = end - start;
        var height = default((double, double, double));
        if (ball.Z > 0 || s.Z > 0)
            height = (ball.Z, (s.Z - ball.Z) / time + 0.5 * _cloth.Gravity * time, -_cloth.Gravity);
        _record!.Pieces.Add(new(slot, start, end, ball.X, ball.Y, (s.X - ball.X) / time, (s.Y - ball.Y) / time, 0, 0) { Height = height });
    }
}
