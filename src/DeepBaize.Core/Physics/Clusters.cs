using System.Numerics;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Physics;

/// <summary>
/// Which contacts stand alone, and which balls take part in one that does not: then <see cref="ClusterSolver"/> has them until nothing
/// overlaps, and the simulator goes on from event to event. docs/model.md, "Several at once".
/// </summary>
public sealed partial class Simulator
{
    /// <summary>
    /// A third ball is met during a contact if it is nearer than this share of the way that the ball towards it goes in the time of one:
    /// half of that way, for the speed grows from nothing, and a little more.
    /// </summary>
    private const double Meanwhile = 0.6;

    /// <summary>Number of segments after which what still presses is left to the law of single contacts.</summary>
    private const int MostSegments = 60;

    /// <summary>Shift below which a pressed ball counts as not moved, m.</summary>
    private const double Shifted = 1e-10;

    /// <summary>Balls of the cluster that goes on, one bit each, from when, and for how many segments.</summary>
    private uint _cluster;
    private double _clusterTime;
    private int _segments;

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
        if (approach < ClusterSolver.SlowestApproach)
            return true;
        (first.Motion, second.Motion) = BallContact.Collide(first.Motion, second.Motion, nx, ny, nz, _conditions);
        var way = Meanwhile * ClusterSolver.ContactTime(approach);
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
        const double reach = 2 * BallRadius + ClusterSolver.Far;
        return WithinBox(x - reach, x + reach, y - reach, y + reach);
    }

    /// <summary>Two balls meet, and a third is in it.</summary>
    /// <returns>Until when the balls of the cluster have been brought.</returns>
    private double MeetSoftly(int i, int j, double time)
    {
        NoteStruck(i, j);
        // One that goes on may be joined: what presses in it presses on.
        var held = _cluster;
        (_cluster, _clusterTime, _segments) = (held | 1u << i | 1u << j, time, 0);
        return GoOnSoftly(held);
    }

    /// <summary>Integrates one more segment of the cluster.</summary>
    /// <param name="held">Slots that press already, one bit each.</param>
    private double GoOnSoftly(uint held)
    {
        var start = _clusterTime;
        Gather(start);
        var end = _solver.Run(start, Math.Min(start + ClusterSolver.Segment, NextOfOthers()), held, _record);
        // Whoever bounds the work counts events: a step costs as much as two.
        EventCount += 2 * _solver.Steps;
        _cluster = 0;
        if (_solver.IsPressed && ++_segments < MostSegments && !_solver.IsQuiet)
            (_clusterTime, _cluster) = (end, _solver.Pressing);
        PutBack(start, end);
        if (_solver.IsPressed && _cluster == 0)
            Settle(end);
        return end;
    }

    /// <summary>Time of the next event that the cluster has no part in, s.</summary>
    private double NextOfOthers()
    {
        var next = double.PositiveInfinity;
        for (var i = 0; i < Count; i++)
            if ((_cluster >> i & 1) == 0)
                next = Math.Min(next, Math.Min(_ownTime[i], _pairTime[i]));
        return next;
    }

    /// <summary>
    /// Who may take part until the segment ends: those in it, and whoever may come near. Brought to this time, and taken out of the events.
    /// </summary>
    private void Gather(double time)
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
                var reach = 2 * BallRadius + ClusterSolver.Far + ClusterSolver.Segment * (fastest + _balls[k].Speed);
                if (dx * dx + dy * dy > reach * reach)
                    continue;
                _cluster |= 1u << k;
                open |= 1u << k;
            }
        }
        _solver.Clear();
        for (var left = _cluster; left != 0; left &= left - 1)
        {
            var slot = BitOperations.TrailingZeroCount(left);
            Advance(slot, time);
            _solver.Add(slot, _balls[slot]);
        }
    }

    /// <summary>Elastic energy stored between a ball and those before it in an active cluster, J/kg.</summary>
    private double PressedEnergy(int i)
    {
        var energy = 0.0;
        for (var k = 0; k < i; k++)
        {
            var (dx, dy, dz) = (X(i) - X(k), Y(i) - Y(k), _balls[i].Z - _balls[k].Z);
            var overlap = 2 * BallRadius - Math.Sqrt(dx * dx + dy * dy + dz * dz);
            if (overlap > 0 && (_cluster >> i & _cluster >> k & 1) != 0)
                energy += _solver.Pressed(overlap);
        }
        return energy;
    }

    /// <summary>Back among the events, as they now move.</summary>
    private void PutBack(double start, double end)
    {
        for (var m = 0; m < _solver.Count; m++)
        {
            ref readonly var s = ref _solver.At(m);
            if (!s.IsAwake)
                continue;
            var slot = _solver.SlotOf(m);
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
    private void Trace(int slot, in ClusterBall s, double start, double end)
    {
        ref readonly var ball = ref _balls[slot];
        var time = end - start;
        var height = default((double, double, double));
        if (ball.Z > 0 || s.Z > 0)
            height = (ball.Z, (s.Z - ball.Z) / time + 0.5 * _cloth.Gravity * time, -_cloth.Gravity);
        _record!.Pieces.Add(new(slot, start, end, ball.X, ball.Y, (s.X - ball.X) / time, (s.Y - ball.Y) / time, 0, 0) { Height = height });
    }
}
