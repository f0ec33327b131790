using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Strokes;

/// <summary>
/// The aim that sends the object ball along the potting line, with squirt, swerve and throw allowed for: found by playing the stroke.
/// </summary>
public static class PotAim
{
    /// <summary>Where the aim itself is told, degrees of the object ball's way.</summary>
    public const double Accuracy = 1e-4;
    private const int MaxTries = 25,
        MaxSecants = 5;

    /// <summary>Good enough where strokes are only compared: far below any player's error, degrees of the object ball's way.</summary>
    public const double Roughly = 0.01;

    /// <summary>The direction of the cue, degrees. Other balls are taken as out of the way.</summary>
    /// <param name="stroke">Everything but the aim.</param>
    /// <returns>Null if no aim near the ghost ball's does it with this stroke, as when the cue ball stops short.</returns>
    public static double? Find(Layout layout, in Cut cut, Stroke stroke, TableShape shape) =>
        Find(new PotTrial(layout, cut, shape), cut, stroke);

    /// <summary>Returns the aim of a direct pot, with no other ball on the table.</summary>
    public static double? Find(in PlacedBall cueBall, in PlacedBall objectBall, in Cut cut, Stroke stroke, TableShape shape) =>
        Find(new PotTrial(cueBall, objectBall, cut, shape), cut, stroke);

    /// <summary>Returns the aim, using a trial that exists already.</summary>
    /// <param name="near">An aim that is about right, degrees; by default the ghost ball's, with the squirt taken off.</param>
    /// <param name="accuracy">Of the object ball's way, degrees.</param>
    public static double? Find(PotTrial trial, in Cut cut, Stroke stroke, double? near = null, double accuracy = Accuracy)
    {
        if (cut.Fault == CutFault.OffJaw || cut.Kind == PotKind.Set || cut.IsAlongCushion)
            return accuracy < Roughly ? Widest(trial, cut, stroke) : Widest(trial, cut, stroke, tries: 81, fewest: 1, isNear: true);
        // With a tip of side the white, aimed at the ghost ball, may pass the object ball altogether: begin where it leaves for it.
        var squirt = Strike.Squirt(Tip.Fraction(stroke.SideTips), trial.Conditions).Degrees;
        if (AlongTheLine(trial, cut, stroke, near ?? cut.AimDegrees - squirt, accuracy) is { } aim)
            return accuracy < Roughly ? Centred(trial, cut, stroke, aim)
                : cut.Kind == PotKind.Double ? Beside(trial, cut, stroke with { AimDegrees = aim }) ?? aim
                : aim;
        // Nowhere on the line: all aims that meet the ball are tried, if the white gets as far as that. Where strokes are only compared
        // there are others.
        return accuracy < Roughly && trial.Arrives(stroke, cut.AimDegrees - squirt) ? Widest(trial, cut, stroke) : null;
    }

    /// <summary>
    /// An aim along the line, moved where that lies near the edge of the aims that pot, as when one jaw forgives more than the other: into
    /// the middle half of them. Where it pots not at all, the ball meeting the near jaw or stopping short, the middle of those that do, if
    /// any.
    /// </summary>
    private static double Centred(PotTrial trial, in Cut cut, Stroke stroke, double aim)
    {
        stroke = stroke with { AimDegrees = aim };
        if (cut.Kind == PotKind.Double)
            return Beside(trial, cut, stroke) ?? aim;
        if (!trial.PotsAsMeant(stroke))
            return WidestBeside(trial, cut, stroke) ?? aim;
        var (right, left) = (new AimEdge(trial, cut, stroke, -1), new AimEdge(trial, cut, stroke, 1));
        // Swerve, or a jaw, may split the aims that pot in two, and the line may lie in the narrower part.
        var part = PerAim(cut) * Math.Abs(cut.OpeningDegrees) * Split;
        // What pots mostly lies so far to either side that the edges themselves need not be known.
        bool IsPart() => right.Inside + left.Inside < part;
        bool IsInMiddle() => right.Outside <= MostAside * left.Inside && left.Outside <= MostAside * right.Inside;
        while (IsPart() || !IsInMiddle())
            if (!(right.Narrow() | left.Narrow()))
                break;
        if (!IsPart() && IsInMiddle())
            return aim;
        var window = (Right: -right.Inside, Left: left.Inside);
        if (IsPart() && WidestBeside(trial, cut, stroke) is { } widest)
        {
            var other = Window(trial, cut, stroke with { AimDegrees = widest });
            if (other.Left - other.Right > window.Left - window.Right)
                return Centred(aim, other);
        }
        return Centred(aim, (aim + window.Right, aim + window.Left));
    }

    /// <summary>A window of less than this share of what the opening gives by plain geometry is a part of one.</summary>
    private const double Split = 0.35;

    /// <summary>An aim is in the middle half if the ball still goes no more than so many times farther aside on one side of it.</summary>
    private const double MostAside = (1 + Middle) / (1 - Middle);

    private const double Middle = 0.5;

    /// <summary>An aim moved into the middle half of the aims that pot.</summary>
    public static double Centred(double aim, (double Right, double Left) window)
    {
        var (centre, half) = ((window.Right + window.Left) / 2, (window.Left - window.Right) / 2);
        return Math.Clamp(aim, centre - Middle * half, centre + Middle * half);
    }

    /// <summary>
    /// The aims on either side of a stroke that pots up to which it still does, degrees; no farther than half a turn apart.
    /// </summary>
    public static (double Right, double Left) Window(PotTrial trial, in Cut cut, Stroke stroke)
    {
        var (right, left) = (new AimEdge(trial, cut, stroke, -1), new AimEdge(trial, cut, stroke, 1));
        while (right.Narrow() | left.Narrow())
            ;
        return (stroke.AimDegrees - right.Inside, stroke.AimDegrees + left.Inside);
    }

    /// <summary>The end, on one side of a stroke that pots, of the aims that still do, narrowed step by step.</summary>
    private sealed class AimEdge
    {
        private const double Most = 90;

        private readonly Func<double, bool> _pots;
        private int _narrowed;

        /// <summary>How far aside the ball still goes, and how far it does not, degrees.</summary>
        public double Inside { get; private set; }

        /// <inheritdoc cref="Inside"/>
        public double Outside { get; private set; }

        /// <param name="side">−1: to the right, 1: to the left.</param>
        public AimEdge(PotTrial trial, in Cut cut, Stroke stroke, int side)
        {
            _pots = aside => trial.PotsAsMeant(stroke with { AimDegrees = stroke.AimDegrees + side * aside });
            Outside = Math.Max(1e-4, PerAim(cut) * Math.Abs(cut.OpeningDegrees) / 4);
            for (; Outside < Most && _pots(Outside); Outside = Math.Min(Most, 2 * Outside))
                Inside = Outside;
        }

        /// <summary>Halves what is left between; returns whether there is more to gain.</summary>
        public bool Narrow()
        {
            if (_narrowed == Halvings)
                return false;
            (Inside, Outside) = Halved(_pots, Inside, Outside);
            return ++_narrowed < Halvings;
        }
    }

    private const int Halvings = 10;

    /// <summary>Where, between an aim that pots and one that does not, it ends.</summary>
    private static double Edge(Func<double, bool> pots, double inside, double outside)
    {
        for (var i = 0; i < Halvings; i++)
            (inside, outside) = Halved(pots, inside, outside);
        return inside;
    }

    private static (double Inside, double Outside) Halved(Func<double, bool> pots, double inside, double outside)
    {
        var between = (inside + outside) / 2;
        return pots(between) ? (between, outside) : (inside, between);
    }

    /// <summary>The aim that sends the ball along the potting line itself; null if none was found from here.</summary>
    private static double? AlongTheLine(PotTrial trial, in Cut cut, Stroke stroke, double from, double accuracy)
    {
        double? Miss(double aim) => trial.Miss(stroke with { AimDegrees = aim });

        // The object ball turns to the left as the aim goes to the right. Widen until two aims stand on either side, then close in.
        var miss = Miss(from);
        if (miss is { } exact && Math.Abs(exact) < accuracy)
            return from;
        if (miss is { } off && Secant(Miss, from, off, PerAim(cut), accuracy) is { } found)
            return found;
        var (right, left, missRight, missLeft) = (from, from, miss, miss);
        for (var step = 0.05; step < 8 && !(missRight > 0 && missLeft < 0); step *= 1.5)
        {
            // Each aim that meets the ball stands on one side, whichever way it was looked for.
            foreach (var aim in (ReadOnlySpan<double>)[from - step, from + step])
                if (Miss(aim) is { } told)
                {
                    if (told > 0 && (!(missRight > 0) || aim > right))
                        (right, missRight) = (aim, told);
                    if (told < 0 && (!(missLeft < 0) || aim < left))
                        (left, missLeft) = (aim, told);
                }
        }
        if (!(missRight > 0 && missLeft < 0))
            return null;
        for (var i = 0; i < MaxTries; i++)
        {
            // Regula falsi, but halving every third time so that a curved function cannot stall it.
            var share = i % 3 == 2 ? 0.5 : missRight.Value / (missRight.Value - missLeft.Value);
            var aim = right + share * (left - right);
            if (Miss(aim) is not { } missed)
                return null;
            if (Math.Abs(missed) < accuracy)
                return aim;
            if (missed > 0)
                (right, missRight) = (aim, missed);
            else
                (left, missLeft) = (aim, missed);
        }
        return (right + left) / 2;
    }

    /// <summary>From an aim that is nearly right a few steps along the slope are enough; null if they do not lead there.</summary>
    private static double? Secant(Func<double, double?> missOf, double aim, double miss, double perDegree, double accuracy)
    {
        for (var i = 0; i < MaxSecants; i++)
        {
            var next = aim + miss * perDegree;
            if (Math.Abs(next - aim) > 2 || missOf(next) is not { } now)
                return null;
            if (Math.Abs(now) < accuracy)
                return next;
            if (Math.Abs(now) >= Math.Abs(miss))
                return null;
            perDegree = (next - aim) / (miss - now);
            (aim, miss) = (next, now);
        }
        return null;
    }

    /// <summary>
    /// Where no line is clear, or it hardly depends on the aim: the middle of the widest run of aims that pot, of all that meet the ball;
    /// null if none does.
    /// </summary>
    private static double? Widest(PotTrial trial, in Cut cut, Stroke stroke) =>
        Widest(trial, cut, stroke, tries: 160, fewest: 3, isNear: false)
        ?? Widest(trial, cut, stroke, tries: 2400, fewest: 1, isNear: false);

    /// <summary>
    /// From the aim that sends the ball along the potting line: the middle of the widest run of aims that pot, of all that may pot it
    /// without a cushion elsewhere; null if none does.
    /// </summary>
    private static double? WidestBeside(PotTrial trial, in Cut cut, Stroke alongLine)
    {
        const double touching = 2 * Dimensions.BallRadius;
        var distance = trial.Distance;
        if (cut.Kind != PotKind.Direct || distance < 1.1 * touching)
            return Widest(trial, cut, alongLine);
        // The object ball's way against the line of centres, + to the left; from so far beside the meant one it passes the pocket.
        var meant = Math.IEEERemainder(cut.FinalDegrees - trial.FullDegrees, 360);
        var beside = Math.Asin(Math.Min(1, PotTrial.AtPocket / cut.PotDistance)) * 180 / Math.PI + MostCurve;
        var tangent = Math.Acos(touching / distance);
        if (trial.StopsAfter(alongLine) is { } ran)
        {
            // A fuller contact takes the ball farther, as the square of its speed.
            double Speed(double way) => Math.Cos(Math.Min(tangent, way * Math.PI / 180));
            var farther = Speed(Math.Max(0, Math.Abs(meant) - beside)) / Speed(Math.Abs(meant));
            if (MostGain * farther * farther * ran < cut.PotDistance - PotTrial.AtPocket)
                return null;
        }
        double Aim(double way)
        {
            var (sin, cos) = Math.SinCos(Math.Clamp(way * Math.PI / 180, -tangent, tangent));
            return trial.FullDegrees - Math.Atan2(touching * sin, distance - touching * cos) * 180 / Math.PI;
        }
        var shift = alongLine.AimDegrees - Aim(meant);
        var step = Math.Abs(cut.OpeningDegrees) / PerOpening;
        var tries = (int)Math.Ceiling(2 * beside / step) + 1;
        return Widest(trial, alongLine, i => Aim(meant + beside - i * step) + shift, tries, fewest: 1);
    }

    /// <summary>Aims are tried so many times over what is open of the pocket: what pots within less than that is nobody's pot.</summary>
    private const int PerOpening = 16;

    /// <summary>Throw and the curve of its way turn the object ball by no more than this against plain geometry, degrees.</summary>
    private const double MostCurve = 6;

    /// <summary>The topspin that a contact gives, and throw, take the ball no farther than this against plain geometry.</summary>
    private const double MostGain = 1.3;

    /// <summary>
    /// Of a double: the middle of the widest run of aims near its line that pot. The jaws refuse some of them the more the faster it comes,
    /// and the line itself may be among those; farther off there are other doubles. Null if none pots.
    /// </summary>
    private static double? Beside(PotTrial trial, in Cut cut, Stroke stroke)
    {
        const int around = 24;
        var (line, step) = (stroke.AimDegrees, PerAim(cut) / 5);
        var (first, best, bestFirst) = (-around - 1, 0, 0);
        for (var i = -around; i <= around + 1; i++)
        {
            var pots = i <= around && trial.PotsAsMeant(stroke with { AimDegrees = line + i * step });
            if (pots && first < -around)
                first = i;
            if (pots || first < -around)
                continue;
            if (i - first > best)
                (best, bestFirst) = (i - first, first);
            first = -around - 1;
        }
        if (best == 0)
            return null;
        var (right, left) = Window(trial, cut, stroke with { AimDegrees = line + (bestFirst + (best - 1) / 2.0) * step });
        return (right + left) / 2;
    }

    /// <param name="tries">Number of aims tried.</param>
    /// <param name="fewest">A run of fewer is none.</param>
    /// <param name="isNear">Only such as turn the ball by a few degrees from the potting line.</param>
    private static double? Widest(PotTrial trial, in Cut cut, Stroke stroke, int tries, int fewest, bool isNear)
    {
        var squirt = Strike.Squirt(Tip.Fraction(stroke.SideTips), trial.Conditions).Degrees;
        var isLine = isNear && cut.Kind != PotKind.Set;
        var middle = (isLine ? cut.AimDegrees : trial.FullDegrees) - squirt;
        // Over a little more than what meets the ball, for swerve; touching balls are met wherever the aim is not away from them.
        var reach = 2 * Dimensions.BallRadius / Math.Max(trial.Distance, 2 * Dimensions.BallRadius);
        var span =
            isLine ? 4 * PerAim(cut)
            : cut.Kind == PotKind.Set ? Math.Min(8, 60 * reach)
            : Math.Min(60, 1.15 * Math.Asin(Math.Min(1, reach)) * 180 / Math.PI);
        var step = 2 * span / (tries - 1);
        return Widest(trial, stroke, i => middle - span + i * step, tries, fewest);
    }

    /// <param name="at">The aims that are tried, from the right, degrees.</param>
    private static double? Widest(PotTrial trial, Stroke stroke, Func<int, double> at, int tries, int fewest)
    {
        bool Pots(double aim) => trial.PotsAsMeant(stroke with { AimDegrees = aim });
        var (first, best, bestFirst) = (-1, 0, 0);
        for (var i = 0; i <= tries; i++)
        {
            var pots = i < tries && Pots(at(i));
            if (pots && first < 0)
                first = i;
            if (pots || first < 0)
                continue;
            if (i - first > best)
                (best, bestFirst) = (i - first, first);
            first = -1;
        }
        if (best < fewest)
            return null;
        var centre = (Edge(Pots, at(bestFirst), at(bestFirst - 1)) + Edge(Pots, at(bestFirst + best - 1), at(bestFirst + best))) / 2;
        return Pots(centre) ? centre : at(bestFirst + best / 2);
    }

    /// <summary>Degrees of aim for a degree of the object ball: plain geometry.</summary>
    internal static double PerAim(in Cut cut) =>
        2 * Dimensions.BallRadius * Math.Cos(cut.CutDegrees * Math.PI / 180) / Math.Max(cut.CueBallDistance, 2 * Dimensions.BallRadius);
}
