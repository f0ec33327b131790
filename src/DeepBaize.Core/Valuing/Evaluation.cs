using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Valuing;

/// <summary>How well the white can be moved on from a place, 0–1 each.</summary>
/// <param name="Angle">Neither straight nor steep.</param>
/// <param name="Distance">Neither on top of the ball nor far away.</param>
/// <param name="Cushion">Off the cushion.</param>
public readonly record struct Control(double Angle, double Distance, double Cushion)
{
    /// <summary>Product of the three.</summary>
    public double Total => Angle * Distance * Cushion;
}

/// <summary>What it is worth to have the white at a place, and why.</summary>
/// <param name="Value">Expected gain from here on: points, or for another target the chance of it.</param>
/// <param name="Pot">The pot to play from there; null if none is on.</param>
/// <param name="Chance">Chance of the pot to play, with what the reach costs.</param>
/// <param name="Others">How many other balls could be potted at least half as likely: cover.</param>
public readonly record struct Quality(double Value, QuickPot? Pot, double Chance, int Others, Reach Reach, Control Control)
{
    /// <summary>Nothing is on.</summary>
    public static Quality None { get; } = new(0, null, 0, 0, default, default);

    /// <summary>Points of the best pot.</summary>
    public int Points { get; init; }

    /// <summary>Whether its ball is on by itself, without a free ball.</summary>
    public bool IsOn { get; init; }

    /// <summary>Whether only colours are left after it, all of them on their spots.</summary>
    public bool LeavesSpotted { get; init; }

    /// <summary>How well the white can be moved on from it, and how much of the rest is open, 0–1.</summary>
    public double Onward { get; init; }
}

/// <summary>
/// Values a table at rest without playing it: the best next pot by a quick estimate, how well the white can be moved on from it, and
/// what an ordinary run of shots would still make. All by common practice, no source; see docs/planning.md, "What a position is worth".
/// </summary>
public sealed class Evaluation
{
    // An ordinary pot: what a break is made of, one after the other.
    private const double OrdinaryDistance = 0.9;
    private static readonly PotWindow OrdinaryWindow = new(Angle.FromDegrees(1.7), Angle.FromDegrees(2.1));
    private static readonly Angle OrdinaryCut = Angle.FromDegrees(30);

    /// <summary>A red that cannot be potted where it lies counts as much as this of one that can.</summary>
    private const double TiedUp = 0.5;

    /// <summary>Number of best-looking pots whose reach is worked out.</summary>
    private const int Reached = 2;

    private readonly Player _player;
    private readonly PlanPreferences _preferences;

    /// <summary>Creates the evaluation for a player and what is played for.</summary>
    public Evaluation(Player player, PlanPreferences preferences)
    {
        (_player, _preferences) = (player, preferences);
        Ordinary = VisitSkill.KeepsPosition * OrdinaryPot(player.Skill);
    }

    /// <summary>Returns the chance of an ordinary pot, 0–1.</summary>
    public static double OrdinaryPot(Skill skill) => QuickChance.Of(OrdinaryWindow, OrdinaryCut, OrdinaryDistance, skill);

    /// <summary>How often an ordinary shot goes in and leaves the next.</summary>
    public double Ordinary { get; }

    /// <summary>What a player's break has gained since a frame.</summary>
    /// <param name="isCleared">Whether nothing is left.</param>
    public double GainOf(Frame before, Frame after, int player, bool isCleared)
    {
        var points = after.ScoreOf(player) - before.ScoreOf(player);
        return GainOf(before.Break, before.Break + points, isCleared && points > 0);
    }

    private double GainOf(double from, double to, bool cleared) =>
        _preferences.Target switch
        {
            PlanTarget.MostPoints or PlanTarget.Frame => to - from,
            // A little for points beyond, so that a plan goes on once it is reached.
            PlanTarget.Score => (from < _preferences.Score && to >= _preferences.Score ? 1 : 0) + 0.0005 * (to - from),
            _ => (cleared ? 1 : 0) + 0.0005 * (to - from),
        };

    /// <summary>The value of a situation at rest.</summary>
    /// <param name="lines">Ways into the pockets as the layout has its balls.</param>
    public Quality Of(Situation situation, PotLines lines) => At(situation, lines, situation.Layout.White.At, situation.Layout);

    /// <summary>Returns the evaluation with the white at another place.</summary>
    /// <param name="layout">With the white there; null: it is made when it is needed.</param>
    /// <param name="only">A ball on that alone is meant; null for any that is on.</param>
    public Quality At(Situation situation, PotLines lines, Vec2 white, Layout? layout = null, Func<Ball, bool>? only = null)
    {
        var frame = situation.Frame;
        if (frame.IsOver)
            return Quality.None;
        var isMeant = MeantOf(frame, lines, only);
        var summary = new TableSummary(lines);
        Span<(double Value, double Chance, QuickPot Pot)> best = stackalloc (double, double, QuickPot)[Reached];
        best.Clear();
        var found = 0;
        Span<double> ofBall = stackalloc double[Ball.Count];
        ofBall.Clear();
        var cushion = CushionFactor(white);
        foreach (ref readonly var line in lines.Lines)
        {
            var ball = lines.BallIn(line.Slot);
            if (!line.IsOpen || !frame.MayPlay(ball) || (isMeant is not null && !isMeant(ball)))
                continue;
            if (lines.From(line, white, _player.Skill) is not { } pot)
                continue;
            var value = ValueOf(frame, ball, pot, pot.Chance, cushion, summary);
            ofBall[line.Slot] = Math.Max(ofBall[line.Slot], pot.Chance);
            // The few best, in order.
            var at = Math.Min(found, Reached - 1);
            if (found == Reached && value <= best[at].Value)
                continue;
            while (at > 0 && best[at - 1].Value < value)
            {
                best[at] = best[at - 1];
                at--;
            }
            best[at] = (value, pot.Chance, pot);
            found = Math.Min(Reached, found + 1);
        }
        if (found == 0)
            return Quality.None;

        var result = Quality.None;
        for (var i = 0; i < found && best[i].Value > result.Value; i++)
        {
            var (_, chance, pot) = best[i];
            layout ??= Layout.OfRest([new(Ball.White, white), .. situation.Layout.Balls.Skip(1)]);
            var aim = (pot.Line.Ghost - white).Direction.Degrees;
            var reach = Reach.Of(layout, new(aim, 0, 0, Pace.Medium, 0), _player);
            if (reach.ErrorFactor > 1)
                chance = QuickChance.Of(pot.Line.Window, pot.Cut, pot.CueBallDistance, _player.Skill.Times(reach.ErrorFactor));
            var ball = lines.BallIn(pot.Line.Slot);
            var value = ValueOf(frame, ball, pot, chance, cushion, summary);
            if (value <= result.Value)
                continue;
            var others = 0;
            for (var slot = 1; slot < lines.Count; slot++)
                if (slot != pot.Line.Slot && ofBall[slot] >= chance / 2)
                    others++;
            var control = ControlOf(pot, cushion);
            result = new(value, pot, chance, others, reach, control)
            {
                Points = PointsOf(frame, ball),
                IsOn = frame.IsOn(ball),
                LeavesSpotted = LeavesSpotted(situation, ball),
                Onward = control.Total * OpenShare(frame, ball, summary),
            };
        }
        return result;
    }

    /// <summary>The balls on that are meant, by the question and by the player's wishes; null: all of them.</summary>
    private Func<Ball, bool>? MeantOf(Frame frame, PotLines lines, Func<Ball, bool>? only)
    {
        if (only is not null || (_preferences.Next is null && _preferences.Later.Count == 0))
            return only;
        var on = Enumerable.Range(1, lines.Count - 1).Select(lines.BallIn).Where(frame.MayPlay).ToList();
        return _preferences.IsMeant(on);
    }

    /// <summary>What a pot promises before any stroke for it has been tried.</summary>
    public double Heuristic(Situation situation, PotLines lines, in QuickPot pot)
    {
        var cushion = CushionFactor(situation.Layout.White.At);
        return ValueOf(situation.Frame, lines.BallIn(pot.Line.Slot), pot, pot.Chance, cushion, new(lines));
    }

    /// <summary>The chance, times what it gains and what is likely to follow.</summary>
    private double ValueOf(Frame frame, Ball ball, in QuickPot pot, double chance, double cushion, in TableSummary summary)
    {
        var points = PointsOf(frame, ball);
        var control = ControlOf(pot, cushion).Total;
        var gain = GainOf(frame.Break, frame.Break + points, frame.IsLastBall);
        return chance * (gain + control * Future(frame, ball, frame.Break + points, summary));
    }

    private static int PointsOf(Frame frame, Ball ball) => frame.FreeBall && !frame.IsOn(ball) ? frame.ValueOn : Values.Of(ball);

    private const double OnItsSpot = 0.02;

    /// <summary>A colour after the last red comes back to its spot; the others must lie on theirs.</summary>
    private static bool LeavesSpotted(Situation situation, Ball potted)
    {
        var frame = situation.Frame;
        if (frame.Reds > 0 || frame.On == BallOn.Red || frame.Exercise is not null || frame.Repeats)
            return false;
        foreach (var ball in situation.Layout.Balls)
            if (ball.Ball != potted && ball.Ball.IsColour && ball.At.DistanceTo(Dimensions.Spot(ball.Ball)) > OnItsSpot)
                return false;
        return true;
    }

    /// <summary>Chance that the next ball on, after this one, can be potted where it lies: 1, but with reds tied up.</summary>
    private static double OpenShare(Frame frame, Ball potted, in TableSummary summary)
    {
        var open = summary.OpenReds - (potted.IsRed ? 1 : 0);
        return open > 0 || summary.TiedReds == 0 || frame.Exercise is not null ? 1
            // A colour comes between, from which the pack can be opened.
            : potted.IsRed ? (1 + TiedUp) / 2
            : TiedUp;
    }

    // ---- What an ordinary run would still make ---------------------------------------------------------------------

    /// <summary>What lies on the table, as far as an ordinary run of shots asks.</summary>
    private readonly struct TableSummary
    {
        public readonly int OpenReds,
            TiedReds;

        /// <summary>Of the colours that have a way to a pocket: half the highest, half the mean.</summary>
        public readonly double ColourAfterRed;

        public TableSummary(PotLines lines)
        {
            var (sum, count, highest) = (0, 0, 0);
            for (var slot = 1; slot < lines.Count; slot++)
            {
                var ball = lines.BallIn(slot);
                var open = lines.IsFree(slot);
                if (ball.IsRed && open)
                    OpenReds++;
                else if (ball.IsRed)
                    TiedReds++;
                else if (open)
                    (sum, count, highest) = (sum + Values.Of(ball), count + 1, Math.Max(highest, Values.Of(ball)));
            }
            ColourAfterRed = count == 0 ? 2 : 0.5 * highest + 0.5 * sum / count;
        }
    }

    /// <summary>The gain that may be expected after this ball has been potted, if each shot to come is an ordinary one.</summary>
    private double Future(Frame frame, Ball potted, int points, in TableSummary summary)
    {
        var (open, tied) = (summary.OpenReds, summary.TiedReds);
        var isColourNext = frame.On == BallOn.Red;
        if (potted.IsRed)
            open--;
        var (sum, alive, made) = (0.0, 1.0, (double)points);
        var cleared = false;
        if (frame.Exercise is { } exercise)
        {
            // One of them is the ball just potted.
            var left = exercise.Balls.Count - 1;
            foreach (var ball in exercise.Balls)
            {
                if (ball == potted)
                    continue;
                alive *= Ordinary;
                cleared = --left == 0;
                sum += alive * GainStep(ref made, Values.Of(ball), cleared);
            }
            return sum;
        }
        for (var shot = 0; shot < 40 && alive > 0.005; shot++)
        {
            double value;
            if (frame.Repeats)
                value = Values.Of(potted);
            else if (isColourNext)
                value = summary.ColourAfterRed;
            else if (open > 0)
                (value, open) = (Values.Red, open - 1);
            else if (tied > 0)
                (value, tied, alive) = (Values.Red, tied - 1, alive * TiedUp);
            else
            {
                // The colours in their order, those before the one just potted gone.
                foreach (var colour in frame.Colours)
                {
                    if (frame.On >= BallOn.Yellow && !frame.FreeBall && Values.Of(colour) <= Values.Of(potted))
                        continue;
                    alive *= Ordinary;
                    cleared = colour == frame.Colours[^1];
                    sum += alive * GainStep(ref made, Values.Of(colour), cleared);
                }
                return sum;
            }
            isColourNext = !isColourNext && frame.On < BallOn.Yellow;
            alive *= Ordinary;
            sum += alive * GainStep(ref made, value, false);
            if (frame.Repeats && made >= Frame.ExerciseTarget)
                break;
        }
        return sum;
    }

    private double GainStep(ref double made, double value, bool cleared)
    {
        var before = made;
        made += value;
        return GainOf(before, made, cleared);
    }

    // ---- How well the white can be moved on ------------------------------------------------------------------------

    private static Control ControlOf(in QuickPot pot, double cushion) =>
        new(AngleFactor(pot.Cut), DistanceFactor(pot.CueBallDistance), cushion);

    /// <summary>Straight, only screw and follow move the white; steep, it can hardly be held.</summary>
    private static double AngleFactor(Angle cut) =>
        PiecewiseLinear.At(cut.Degrees, [(0, 0.8), (8, 0.93), (15, 1), (38, 1), (50, 0.85), (65, 0.6), (80, 0.35)]);

    /// <summary>Not closer than two ball widths, not so far that it is a long pot.</summary>
    private static double DistanceFactor(double distance) =>
        PiecewiseLinear.At(distance, [(0.02, 0.6), (0.06, 0.8), (0.12, 1), (0.8, 1), (1.5, 0.85), (2.5, 0.65), (3.5, 0.5)]);

    /// <summary>Off the cushion by at least a ball.</summary>
    private static double CushionFactor(Vec2 white) => PiecewiseLinear.At(Cushions.Clearance(white), [(0, 0.8), (0.05, 0.97), (0.1, 1)]);
}
