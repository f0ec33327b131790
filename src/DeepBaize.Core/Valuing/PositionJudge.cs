using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Valuing;

/// <summary>Judges a table at rest for whichever of two players comes to it, by the same chances and reach. See docs/safety.md.</summary>
public sealed class PositionJudge
{
    /// <summary>
    /// Of the escapes from a snooker so many fail, by how far off the white is where the ball is met, most of it for the cushion between:
    /// of a tour player one in five, of a learner three in four.
    /// </summary>
    private const double FailsAtBest = 0.15,
        FailsPerMetre = 12,
        EscapeDistance = 3,
        AfterCushion = 1.5,
        FailsAtMost = 0.75;

    private const int Slices = 9;

    /// <summary>With a pot as likely as this nobody thinks of a safety, and how the rest of the table lies does not matter.</summary>
    private const double Clear = 0.8;

    /// <summary>What the judge knows of one of the two players.</summary>
    private sealed class Side(Player player, PlanPreferences preferences)
    {
        public Player Player { get; } = player;
        public Evaluation Evaluation { get; } = new(player, preferences);
        public SafetyEase Ease { get; } = new(player);

        /// <summary>Of escapes from a snooker, the share that fails.</summary>
        public double Fails { get; } = FailsOf(player.Skill);
    }

    private readonly Side[] _sides;
    private readonly TableShape _shape;

    /// <summary>Judges for a player and a rival.</summary>
    /// <param name="me">The place in the frame of the player, 0 or 1.</param>
    /// <param name="preferences">What the player plays for.</param>
    public PositionJudge(int me, Player player, Player rival, TableShape shape, PlanPreferences preferences)
    {
        var (mine, theirs) = (new Side(player, preferences), new Side(rival, PlanPreferences.Default));
        (_sides, _shape) = (me == 0 ? [mine, theirs] : [theirs, mine], shape);
    }

    /// <summary>Judges for one player, whoever is at the table.</summary>
    public PositionJudge(Player player, TableShape shape)
        : this(0, player, player, shape, PlanPreferences.Default) { }

    private static double FailsOf(Skill skill)
    {
        var (direction, sighting) = (
            Angle.FromDegrees(skill.DirectionDegrees).Radians * EscapeDistance,
            skill.SightingAt(0, EscapeDistance)
        );
        var cushion = Angle.FromDegrees(skill.CushionDegrees).Radians * AfterCushion;
        var off = Math.Sqrt(direction * direction + sighting * sighting + cushion * cushion);
        return Math.Min(FailsAtMost, FailsAtBest + FailsPerMetre * off);
    }

    /// <summary>Judges the table for the player at it.</summary>
    /// <param name="lines">Pot lines of the balls as they lie.</param>
    public Outlook Of(Situation situation, PotLines lines)
    {
        if (situation.Frame.IsOver)
            return Outlook.Nothing;
        var side = _sides[situation.Frame.Turn];
        return situation.Frame.InHand ? InHand(situation, lines, side) : Of(situation, lines, side, side.Evaluation.Of(situation, lines));
    }

    /// <summary>Judges the table without a look at how the white lies where a pot is on that nobody would leave: for searches.</summary>
    /// <param name="lines">Pot lines of the balls as they lie.</param>
    public Outlook QuickOf(Situation situation, PotLines lines)
    {
        if (situation.Frame.IsOver)
            return Outlook.Nothing;
        var side = _sides[situation.Frame.Turn];
        if (situation.Frame.InHand)
            return InHand(situation, lines, side);
        var quality = side.Evaluation.Of(situation, lines);
        return quality.Chance > Clear ? new(quality, new(false, 1, 0), default, 0, side.Ease.Usual) : Of(situation, lines, side, quality);
    }

    private static Outlook Of(Situation situation, PotLines lines, Side side, in Quality quality)
    {
        var white = situation.Layout.White.At;
        var sight = SightOf(situation);
        var lie = new Lie(Cushions.Clearance(white), IsInJaws: InJaws(white));
        var foul = sight is { IsSnookered: true, Seen: 0 } ? side.Fails : 0;
        var left = quality.Chance > Clear ? side.Ease.Usual : side.Ease.Of(situation, lines, sight, lie);
        return new(quality, sight, lie, foul, left) { Penalty = situation.Frame.LeastPenalty };
    }

    // Of so many pots that look best it is asked how good they are; beyond these a quick estimate is sure enough.
    private const int Tried = 4;
    private const double SurelyNot = 0.1,
        Surely = 0.93;

    /// <summary>
    /// Chance of the player at the table at the best ball, by strokes at several paces, plants and doubles among them: for what is told.
    /// The quick estimate of <paramref name="leave"/> misses one leave in three on open tables.
    /// </summary>
    public double BestChance(Situation situation, PotLines lines, in Outlook leave)
    {
        if (situation.Frame.IsOver || leave.Best.Chance > Surely || leave.Lie.IsInHand)
            return leave.Best.Chance;
        var player = _sides[situation.Frame.Turn].Player;
        var white = situation.Layout.White.At;
        var pots = new List<QuickPot>();
        foreach (ref readonly var line in lines.Lines)
            if (situation.Frame.MayPlay(lines.BallIn(line.Slot)) && lines.From(line, white, player.Skill) is { Chance: > SurelyNot } pot)
                pots.Add(pot);
        var best = 0.0;
        foreach (var pot in pots.OrderByDescending(p => p.Chance).Take(Tried))
        {
            // One that looks much worse than what is found already adds nothing, and a poor one is told well enough by the estimate.
            if (pot.Chance < best - MuchWorse || pot.Chance < Poor)
            {
                best = Math.Max(best, pot.Chance);
                break;
            }
            best = Math.Max(best, TableReading.BestChance(situation.Layout, new(pot.Line.Slot, pot.Line.Pocket), player, _shape));
        }
        // All red, or any of an exercise: else two balls in a row are not on.
        return best > Even || situation.Frame.On == BallOn.Colour
            ? best
            : Math.Max(best, TableReading.BestIndirect(situation.Layout, situation.Frame.MayPlay, player, _shape, LeastIndirect));
    }

    /// <summary>Returns an outlook with the chance of its best pot found by strokes (<see cref="BestChance"/>).</summary>
    public Outlook Closely(Situation situation, PotLines lines, in Outlook leave) =>
        leave.WithChance(BestChance(situation, lines, leave), situation.Frame.ValueOn);

    /// <summary>Better than even.</summary>
    public const double Even = 0.5;

    private const double MuchWorse = 0.1,
        Poor = 0.3,
        LeastIndirect = 0.4;

    /// <summary>From wherever in the D it is best.</summary>
    private static Outlook InHand(Situation situation, PotLines lines, Side side)
    {
        var best = Quality.None;
        foreach (var place in PlacesInD)
            if (
                situation.Layout.Balls.Skip(1).All(b => b.Gap(place) >= 0)
                && side.Evaluation.At(situation, lines, place) is var q
                && q.Value > best.Value
            )
                best = q;
        return new(best, new(false, 1, 1), new(1, IsInHand: true), 0, side.Ease.Usual);
    }

    private static readonly Vec2[] PlacesInD =
    [
        new(BaulkLineX - 0.02, Width / 2 - DRadius + 0.03),
        new(BaulkLineX - 0.02, Width / 2 - 0.12),
        new(BaulkLineX - 0.02, Width / 2 + 0.12),
        new(BaulkLineX - 0.02, Width / 2 + DRadius - 0.03),
        new(BaulkLineX - 0.2, Width / 2),
    ];

    private static bool InJaws(Vec2 white) =>
        Math.Min(white.X, Length - white.X) < CornerMouth && Math.Min(white.Y, Width - white.Y) < CornerMouth;

    /// <summary>So near to both noses a ball is in a corner's jaws, m.</summary>
    private const double CornerMouth = 0.09;

    /// <summary>How much of the ball on that is seen best can be hit straight, and how far the nearest is.</summary>
    private static Sight SightOf(Situation situation)
    {
        var (layout, white) = (situation.Layout, situation.Layout.White.At);
        var (best, nearest) = (-1.0, Length);
        Ball? hiddenBy = null;
        foreach (var slot in situation.OnSlots())
        {
            var distance = white.DistanceTo(layout.Balls[slot].At);
            nearest = Math.Min(nearest, distance - 2 * BallRadius);
            if (distance <= 2 * BallRadius + 1e-6)
                return new(false, 1, 0);
            if (best == 1)
                continue;
            var (seen, inTheWay) = SeenOf(situation, slot);
            if (seen > best)
                (best, hiddenBy) = (seen, inTheWay);
        }
        var share = Math.Max(0, best);
        return new(share < 1 && situation.IsSnookered, share, nearest, hiddenBy);
    }

    /// <summary>The share of a ball that can be hit straight, and the last ball that hides some of it.</summary>
    public static (double Share, Ball? HiddenBy) SeenOf(Situation situation, int slot)
    {
        var (layout, white, target) = (situation.Layout, situation.Layout.White.At, situation.Layout.Balls[slot].At);
        var towards = (target - white).Unit;
        var free = 0;
        Ball? inTheWay = null;
        for (var i = 0; i < Slices; i++)
        {
            // The white's centre comes so far beside the target's.
            var beside = (i - (Slices - 1) / 2.0) / ((Slices - 1) / 2.0) * 0.98 * 2 * BallRadius;
            var back = Math.Sqrt(4 * BallRadius * BallRadius - beside * beside);
            var way = new Segment(white, target - back * towards + beside * towards.Left);
            var blocked = false;
            for (var k = 1; k < layout.Balls.Count && !blocked; k++)
            {
                blocked = k != slot && !situation.Frame.IsOn(layout.Balls[k].Ball) && !layout.Balls[k].IsClearOf(way);
                if (blocked)
                    inTheWay = layout.Balls[k].Ball;
            }
            if (!blocked)
                free++;
        }
        return ((double)free / Slices, inTheWay);
    }
}
