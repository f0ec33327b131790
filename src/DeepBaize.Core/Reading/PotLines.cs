using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Reading;

/// <summary>A ball's straight way into a pocket, wherever the white is.</summary>
/// <param name="Slot">In the layout.</param>
/// <param name="Direction">Of the middle of the opening.</param>
/// <param name="Window">Off its direction it still goes in.</param>
/// <param name="Distance">To the drop, m.</param>
/// <param name="Ghost">Where the white has to come, m.</param>
/// <param name="End">Where its way ends, at the drop, m.</param>
/// <param name="Blocker">Slot of a ball in the way, or −1.</param>
public readonly record struct PotLine(
    int Slot,
    Pocket Pocket,
    Angle Direction,
    PotWindow Window,
    double Distance,
    Vec2 Ghost,
    Vec2 End,
    int Blocker
)
{
    /// <summary>Whether no ball is in the way.</summary>
    public bool IsOpen => Blocker < 0;
}

/// <summary>A pot by plain geometry, from some place of the white.</summary>
/// <param name="Cut">φ, not signed.</param>
/// <param name="CueBallDistance">To the ghost ball, m.</param>
/// <param name="Chance">0–1, a quick estimate; see docs/planning.md, "How likely, quickly".</param>
public readonly record struct QuickPot(PotLine Line, Angle Cut, double CueBallDistance, double Chance);

/// <summary>
/// All ways of the balls of one table into its pockets, and quick estimates of pots from anywhere. It stands until a ball other than the
/// white has moved.
/// </summary>
public sealed class PotLines
{
    // Nothing is potted thinner than this, or where the jaws close the way by more than this.
    private const double ThinnestCut = 78 * Math.PI / 180;
    private static readonly Angle Narrowest = Angle.FromDegrees(0.3);

    private const double Diameter = 2 * BallRadius,
        Clear = Diameter - TableShape.InputTolerance;

    private readonly PotLine[] _lines;
    private readonly PlacedBall[] _balls;
    private readonly bool[] _free;
    private readonly TableShape _shape;

    /// <summary>Whether these are the ways of this layout: the white may lie anywhere.</summary>
    public bool IsOf(Layout layout)
    {
        var balls = layout.AsSpan();
        return balls.Length == _balls.Length && balls[1..].SequenceEqual(_balls.AsSpan(1));
    }

    /// <summary>Returns the ways with one ball taken off the table.</summary>
    /// <param name="slot">Slot of the ball that is taken away.</param>
    public PotLines Without(int slot) => new(Layout.OfRest([.. _balls.Where((_, i) => i != slot)]), _shape, this);

    /// <summary>How many reds there are, and how many of them have a free way into a pocket.</summary>
    public int Reds => _balls.Count(b => b.Ball.IsRed);

    /// <inheritdoc cref="Reds"/>
    public int FreeReds => Enumerable.Range(1, Count - 1).Count(i => BallIn(i).IsRed && IsFree(i));

    /// <param name="like">Ways of a table on which most balls lie as on this one: what has not changed is taken over.</param>
    public PotLines(Layout layout, TableShape shape, PotLines? like = null)
    {
        (_balls, _shape) = (layout.AsSpan().ToArray(), shape);
        _free = new bool[_balls.Length];
        var lines = new List<PotLine>(_balls.Length * 4);
        // Which slot each ball that lies where it lay has here, and had there; −1 if it has moved or is gone.
        Span<int> here = stackalloc int[Ball.Count],
            there = stackalloc int[Ball.Count];
        Match(like, here, there);
        for (var slot = 1; slot < _balls.Length; slot++)
        {
            if (there[slot] >= 0)
                TakeOver(lines, slot, like!, there, here);
            else
                foreach (var pocket in shape.PocketShapes)
                    if (Line(_balls[slot], slot, pocket, shape) is { } line)
                        Add(lines, line with { Blocker = Blocker(slot, _balls[slot].At, line.End) });
        }
        _lines = [.. lines];
    }

    private void Match(PotLines? like, Span<int> here, Span<int> there)
    {
        here.Fill(-1);
        there.Fill(-1);
        if (like is null)
            return;
        Span<int> slotOf = stackalloc int[Ball.Count];
        slotOf.Fill(-1);
        for (var slot = 1; slot < like._balls.Length; slot++)
            slotOf[like._balls[slot].Ball.Index] = slot;
        for (var slot = 1; slot < _balls.Length; slot++)
            if (slotOf[_balls[slot].Ball.Index] is >= 0 and var was && like._balls[was] == _balls[slot])
                (there[slot], here[was]) = (was, slot);
    }

    /// <summary>
    /// The ways of a ball that lies where it lay: closed ones stay closed by a ball that has not moved, and open ones can only be closed by
    /// one that has.
    /// </summary>
    private void TakeOver(List<PotLine> lines, int slot, PotLines like, ReadOnlySpan<int> there, ReadOnlySpan<int> here)
    {
        foreach (ref readonly var line in like.LinesOf(there[slot]))
        {
            var (from, to) = (_balls[slot].At, line.End);
            var blocker =
                line.IsOpen ? Blocker(slot, from, to, there)
                : here[line.Blocker] >= 0 ? here[line.Blocker]
                : Blocker(slot, from, to);
            Add(lines, line with { Slot = slot, Blocker = blocker });
        }
    }

    private void Add(List<PotLine> lines, in PotLine line)
    {
        lines.Add(line);
        _free[line.Slot] |= line.IsOpen;
    }

    private static PotLine? Line(in PlacedBall ball, int slot, PocketShape pocket, TableShape shape)
    {
        var (direction, opening, window) = PotWindow.Into(shape, pocket.Pocket, ball.At);
        // Along the cushion into a middle pocket, or past a near jaw among the jaws: no line worth having.
        if (opening.Radians < -Narrowest.Radians)
            return null;
        var along = direction.Unit;
        var ghost = ball.At - Diameter * along;
        if (!shape.CanRest(ghost))
            return null;
        var distance = ball.At.DistanceTo(pocket.Drop.Centre) - pocket.Drop.Radius;
        return new(slot, pocket.Pocket, direction, window, distance, ghost, ball.At + distance * along, -1);
    }

    /// <summary>The ways of the ball in a slot.</summary>
    private ReadOnlySpan<PotLine> LinesOf(int slot)
    {
        var first = 0;
        while (first < _lines.Length && _lines[first].Slot < slot)
            first++;
        var end = first;
        while (end < _lines.Length && _lines[end].Slot == slot)
            end++;
        return _lines.AsSpan(first, end - first);
    }

    /// <summary>All lines, ball by ball and pocket by pocket.</summary>
    public ReadOnlySpan<PotLine> Lines => _lines;

    /// <summary>Ball in a slot of the layout.</summary>
    public Ball BallIn(int slot) => _balls[slot].Ball;

    /// <summary>How many slots there are, the white's too.</summary>
    public int Count => _balls.Length;

    /// <summary>Whether the ball in a slot can be potted at all, from somewhere.</summary>
    public bool IsFree(int slot) => _free[slot];

    /// <summary>Slot of a ball, other than this one, in the way of one that goes straight from one place to another; or −1.</summary>
    /// <param name="unmoved">If given, only balls are asked for which it has −1.</param>
    private int Blocker(int slot, Vec2 from, Vec2 to, ReadOnlySpan<int> unmoved = default)
    {
        var (x1, y1, dx, dy) = (from.X, from.Y, to.X - from.X, to.Y - from.Y);
        var square = dx * dx + dy * dy;
        for (var i = 1; i < _balls.Length; i++)
        {
            if (i == slot || (unmoved.Length > 0 && unmoved[i] >= 0))
                continue;
            // PlacedBall.IsClearOf, in squares: this is the hottest loop of the planner.
            var (px, py) = (_balls[i].X - x1, _balls[i].Y - y1);
            var along = Math.Clamp(px * dx + py * dy, 0, square);
            var (qx, qy) = (px * square - along * dx, py * square - along * dy);
            if (qx * qx + qy * qy < Clear * Clear * square * square)
                return i;
        }
        return -1;
    }

    /// <summary>The pot along a line with the white here; null if it cannot be, or something is in the white's way.</summary>
    public QuickPot? From(in PotLine line, Vec2 white, Skill skill)
    {
        var towards = line.Ghost - white;
        var distance = towards.Length;
        var cut = distance < 1e-9 ? default : CutOf(line, towards);
        if (cut.Radians > ThinnestCut || !line.IsOpen)
            return null;
        if (Blocker(line.Slot, white, line.Ghost) >= 0)
            return null;
        return new(line, cut, distance, QuickChance.Of(line.Window, cut, distance, skill));
    }

    /// <summary>The ball that keeps the white from an open line; null if none does, or the cut is too thin.</summary>
    public Ball? InTheWhitesWay(in PotLine line, Vec2 white) =>
        CutOf(line, line.Ghost - white).Radians <= ThinnestCut && Blocker(line.Slot, white, line.Ghost) is >= 0 and var slot
            ? BallIn(slot)
            : null;

    private static Angle CutOf(in PotLine line, Vec2 towardsGhost) => Angle.Between(towardsGhost.Direction, line.Direction).Abs;
}
