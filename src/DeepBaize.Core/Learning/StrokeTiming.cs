namespace DeepBaize.Core.Learning;

/// <summary>What the cue's speed did when the tip met the ball.</summary>
public enum SpeedAtContact
{
    /// <summary>Still rising.</summary>
    Rising,

    /// <summary>At its peak, as far as the readings tell.</summary>
    AtPeak,

    /// <summary>Past its peak: slowing through the ball.</summary>
    PastPeak,

    /// <summary>The readings do not tell.</summary>
    Unknown,
}

/// <summary>A point of the curve.</summary>
/// <param name="Time">s after the first reading.</param>
/// <param name="Speed">m/s, forward positive.</param>
/// <param name="Acceleration">m/s².</param>
public readonly record struct CuePoint(double Time, double Speed, double Acceleration);

/// <summary>A figure with the standard deviation of its error.</summary>
public readonly record struct Measured(double Value, double Doubt);

/// <summary>A part of a stroke.</summary>
/// <param name="From">s after the first reading.</param>
/// <param name="To">s after the first reading.</param>
/// <param name="Length">How far the cue goes in it, m.</param>
public readonly record struct CuePhase(double From, double To, double Length)
{
    /// <summary>s.</summary>
    public double Seconds => To - From;
}

/// <summary>
/// How a stroke of the cue was timed: its speed, when the tip met the ball and what the speed did then, backswing, pause, delivery and
/// follow-through.
/// </summary>
/// <remarks>
/// Speed and acceleration are slopes of parabolas fitted to the readings within a window (Savitzky &amp; Golay, Anal. Chem. 36 (1964) 1627,
/// from memory). The window lies evenly about each time and so has no lag; a filter that ran along with the readings would lag by half of
/// it. At the contact speed breaks: there a window ends, and reaches to one side only.
/// </remarks>
public sealed record StrokeTiming
{
    /// <summary>The window of the filter where nothing breaks, s, and beside the contact. With few readings it is longer.</summary>
    private const double Window = 0.024,
        EdgeWindow = 0.04;

    /// <summary>The contact is looked for in windows as short as this, s: in longer ones whatever slows down breaks.</summary>
    private const double BreakWindow = 0.016;
    private const int FewestInWindow = 5,
        FewestAtEdge = 6;

    /// <summary>At a contact the cue loses at least such a share of its speed; by the model of the strike 30 to 40 %.</summary>
    private const double LeastLoss = 0.12;
    private const double Millisecond = 0.001;
    private static readonly double[] Looks = [0.06, 0.09, 0.12];

    /// <summary>Slower than this share of its speed at contact the cue stands.</summary>
    private const double Standing = 0.04;

    /// <summary>A shorter way back is no backswing, m.</summary>
    private const double LeastBackswing = 0.02;

    /// <summary>Errors this many times as large as their deviation are no chance.</summary>
    private const double Sure = 2.5;

    /// <summary>Speed and acceleration over time.</summary>
    public required IReadOnlyList<CuePoint> Curve { get; init; }

    /// <summary>When the tip met the ball, s after the first reading; null if it is not seen to.</summary>
    public Measured? Contact { get; init; }

    /// <summary>With which the tip met the ball, m/s; without a contact the greatest speed forward.</summary>
    public required Measured Speed { get; init; }

    /// <summary>The share of its speed that the cue lost at the contact; null without one.</summary>
    public double? Loss { get; init; }

    /// <summary>What the speed did at the contact.</summary>
    public SpeedAtContact AtContact { get; init; } = SpeedAtContact.Unknown;

    /// <summary>
    /// How long before the contact the speed had its peak, s; negative if it still rose, and would have had it so much later. Null if the
    /// readings do not tell.
    /// </summary>
    public Measured? PeakBefore { get; init; }

    /// <summary>The backswing; null if none is seen.</summary>
    public CuePhase? Backswing { get; init; }

    /// <summary>Between backswing and delivery.</summary>
    public CuePhase? Pause { get; init; }

    /// <summary>From the pause to the contact.</summary>
    public CuePhase? Delivery { get; init; }

    /// <summary>From the contact until the cue stands.</summary>
    public CuePhase? FollowThrough { get; init; }

    /// <summary>How often the speed falls back in the delivery before its peak.</summary>
    public int Dips { get; init; }

    /// <summary>
    /// How smooth the delivery is: the negative logarithm of its squared jerk over time, made free of its length and speed (log
    /// dimensionless jerk; Balasubramanian et al., J. NeuroEng. Rehabil. 9 (2012) 34, from memory). Larger is smoother.
    /// </summary>
    public double? Smoothness { get; init; }

    /// <summary>Whole width of the filter's window, s: what is shorter is not told apart. Its lag, half of it, is taken out.</summary>
    public double FilterWindow { get; init; }

    /// <summary>Noise of a reading, in its own unit.</summary>
    public double Noise { get; init; }

    /// <summary>Reads the timing off a motion.</summary>
    public static StrokeTiming Of(CueMotion motion) => new Reading(motion).Told();

    /// <summary>What is worked out on the way.</summary>
    private sealed class Reading
    {
        private readonly CueMotion _motion;
        private readonly double[] _times;
        private readonly double[] _travel;
        private readonly double _window,
            _break;
        private double _noise;
        private double? _contact;

        public Reading(CueMotion motion)
        {
            _motion = motion;
            _times = [.. motion.Samples.Select(s => s.Time)];
            _window = Math.Max(Window, FewestInWindow * motion.Step);
            _break = Math.Max(BreakWindow, FewestInWindow * motion.Step);
            _travel = motion.Measure == CueMeasure.Travel ? [.. motion.Samples.Select(s => s.Value)] : Integrated(motion);
        }

        public StrokeTiming Told()
        {
            // A contact that was seen is known from the beginning.
            _contact = _motion.Contact;
            _noise = NoiseOf();
            var (contact, before, after) = FindContact();
            _contact = contact?.Value;
            var curve = Curve();
            var top = contact is null ? curve.Where(p => p.Speed > 0).DefaultIfEmpty(curve[0]).MaxBy(p => p.Speed) : default;
            var end = contact?.Value ?? top.Time;
            var speed = contact is null ? new Measured(top.Speed, SpeedDoubt(_window)) : new(before, SpeedDoubt(EdgeWindow / 2));
            var phases = PhasesOf(curve, end, speed.Value);
            var (state, peak) = contact is { } c && phases.Delivery is { } d ? AtContactOf(curve, c, d) : (SpeedAtContact.Unknown, null);
            var delivery = phases.Delivery is { } own ? curve.Where(p => p.Time >= own.From && p.Time <= own.To).ToList() : [];
            return new()
            {
                Curve = curve,
                Contact = contact,
                Speed = speed,
                Loss = contact is null ? null : 1 - after / before,
                AtContact = state,
                PeakBefore = peak,
                Backswing = phases.Backswing,
                Pause = phases.Pause,
                Delivery = phases.Delivery,
                FollowThrough = phases.FollowThrough,
                Dips = DipsOf(delivery),
                Smoothness = SmoothnessOf(delivery),
                FilterWindow = _window,
                Noise = _motion.Measure == CueMeasure.Travel ? _noise : AccelerationNoise(),
            };
        }

        // ---- The readings -----------------------------------------------------------------------------------------

        /// <summary>
        /// Travel by integrating twice. A sensor's zero is off a little: the cue stands at the beginning, and its speed there is nought.
        /// </summary>
        private double[] Integrated(CueMotion motion)
        {
            const double stands = 0.12;
            var samples = motion.Samples;
            List<double> quiet = [.. samples.Where(s => s.Time <= stands).Select(s => s.Value)];
            var zero = quiet.Count > 2 ? quiet.Average() : 0;
            // If it stands at the end too, its speed is nought there.
            List<double> late = [.. samples.Where(s => s.Time >= samples[^1].Time - stands).Select(s => s.Value)];
            if (quiet.Count > 2 && late.Count > 2 && Spread(late) < 2 * Spread(quiet) + 1e-6)
                zero +=
                    samples.Zip(samples.Skip(1), (a, b) => (a.Value + b.Value - 2 * zero) / 2 * (b.Time - a.Time)).Sum() / samples[^1].Time;
            var (speed, travel) = (0.0, new double[samples.Count]);
            for (var i = 1; i < samples.Count; i++)
            {
                var dt = samples[i].Time - samples[i - 1].Time;
                var (a, b) = (samples[i - 1].Value - zero, samples[i].Value - zero);
                travel[i] = travel[i - 1] + speed * dt + (2 * a + b) / 6 * dt * dt;
                speed += (a + b) / 2 * dt;
            }
            return travel;
        }

        private static double Spread(List<double> values)
        {
            var mean = values.Average();
            return Math.Sqrt(values.Average(v => (v - mean) * (v - mean)));
        }

        private double AccelerationNoise() => Spread([.. _motion.Samples.Where(s => s.Time <= 0.12).Select(s => s.Value)]);

        /// <summary>By what is left of the readings beside parabolas through them: the median, for a knock.</summary>
        private double NoiseOf()
        {
            var left = new List<double>();
            for (var i = 0; i < _times.Length; i++)
                if (WindowAt(_times[i]) is var (from, to) && Fit(_times[i], from, to, 2) is { Points: > 3 } fit)
                    left.Add(Math.Abs(_travel[i] - fit[0]) * Math.Sqrt(fit.Points / Math.Max(1.0, fit.Points - 3)));
            const double medianOfNormal = 0.6745;
            return left.Count == 0 ? 0 : left.Order().ElementAt(left.Count / 2) / medianOfNormal;
        }

        private LocalPolynomial? Fit(double about, double from, double to, int degree) =>
            LocalPolynomial.Fit(_times, _travel, about, (from, to), degree);

        private double SpeedDoubt(double window)
        {
            // The noise of an acceleration adds up from the beginning on.
            if (_motion.Measure == CueMeasure.Acceleration)
                return AccelerationNoise() * Math.Sqrt(_motion.Step * _times[^1]);
            var middle = _times[_times.Length / 2];
            return _noise * (Fit(middle, middle - window / 2, middle + window / 2, 2)?.DoubtOf(1) ?? 0);
        }

        // ---- The contact -------------------------------------------------------------------------------------------

        /// <summary>Where the slope of the travel breaks most, forward: parabolas before and after, and where they meet.</summary>
        private (Measured? At, double Before, double After) FindContact()
        {
            if (_motion.Contact is { } seen)
                return (new(seen, _motion.ShortestStep / Math.Sqrt(12)), Before(seen)?[1] ?? 0, After(seen)?[1] ?? 0);
            var (best, at) = (0.0, double.NaN);
            for (var i = 0; i < _times.Length; i++)
            {
                // Between two readings: the break falls on none of them.
                var t = _times[i] + _motion.Step / 2;
                if (Left(t) is not { } left || Right(t) is not { } right || left[1] < LeastLoss)
                    continue;
                var loss = left[1] - right[1];
                if (loss > LeastLoss * left[1] && loss > Sure * _noise * (left.DoubtOf(1) + right.DoubtOf(1)) && loss > best)
                    (best, at) = (loss, t);
            }
            if (double.IsNaN(at))
                return (null, 0, 0);
            for (var round = 0; round < 4; round++)
            {
                var (left, right) = (Left(at), Right(at));
                if (left is null || right is null)
                    break;
                // Both about the same time: where the straight parts meet.
                var step = (right[0] - left[0]) / (left[1] - right[1]);
                at += Math.Clamp(step, -_motion.Step, _motion.Step);
            }
            // A cubic: at the end of its window a parabola is off by a few percent.
            var (before, after) = (Before(at), After(at));
            if (before is null || after is null)
                return (null, 0, 0);
            var doubt = Math.Sqrt(2) * _noise / Math.Sqrt(FewestInWindow) / Math.Max(0.1, before[1] - after[1]);
            return (new(at, Math.Max(doubt, _motion.Step / 20)), before[1], after[1]);
        }

        /// <summary>
        /// A contact takes about a millisecond: readings so near to it are left out. A mean over a step tells of half a step before and
        /// after, and whoever saw the contact in a film knows it to half a picture.
        /// </summary>
        private double Beside =>
            _motion.Measure == CueMeasure.Acceleration ? 1.5 * _motion.Step
            : _motion.Contact is not null ? _motion.ShortestStep / 2
            : Math.Min(0.0006, _motion.Step / 2);

        private LocalPolynomial? Before(double t)
        {
            var last = Array.FindLastIndex(_times, x => x < t - Beside);
            return last < 0 ? null : FitEdge(t, Math.Min(t - EdgeWindow, _times[Math.Max(0, last - FewestAtEdge + 1)]), t - Beside);
        }

        private LocalPolynomial? After(double t)
        {
            var first = Array.FindIndex(_times, x => x > t + Beside);
            return first < 0
                ? null
                : FitEdge(t, t + Beside, Math.Max(t + EdgeWindow, _times[Math.Min(_times.Length - 1, first + FewestAtEdge - 1)]));
        }

        /// <summary>With few readings a cubic would follow their noise.</summary>
        private LocalPolynomial? FitEdge(double t, double from, double to) =>
            Fit(t, from, to, 3) is { Points: > 2 * FewestAtEdge } cubic ? cubic : Fit(t, from, to, 2);

        private LocalPolynomial? Left(double t) => Fit(t, t - _break, t - Beside, 2);

        private LocalPolynomial? Right(double t) => Fit(t, t + Beside, t + _break, 2);

        // ---- The curve ---------------------------------------------------------------------------------------------

        private List<CuePoint> Curve()
        {
            var curve = new List<CuePoint>();
            foreach (var t in _times)
            {
                var (from, to) = WindowAt(t);
                if (Fit(t, from, to, 2) is { } fit)
                    curve.Add(new(t, fit[1], 2 * fit[2]));
            }
            return curve;
        }

        /// <summary>About a time, evenly; beside the contact on one side of it, and as wide as elsewhere.</summary>
        private (double From, double To) WindowAt(double t)
        {
            var (from, to) = (t - _window / 2, t + _window / 2);
            return _contact is not { } c ? (from, to)
                : t < c ? (Math.Min(from, c - Beside - _window), Math.Min(to, c - Beside))
                : (Math.Max(from, c + Beside), Math.Max(to, c + Beside + _window));
        }

        // ---- Its parts ---------------------------------------------------------------------------------------------

        private sealed record Phases(CuePhase? Backswing, CuePhase? Pause, CuePhase? Delivery, CuePhase? FollowThrough);

        private Phases PhasesOf(List<CuePoint> curve, double contact, double speed)
        {
            var still = Math.Max(Standing * speed, 2 * SpeedDoubt(_window));
            var end = curve.FindLastIndex(p => p.Time <= contact);
            if (end < 0 || speed <= 0)
                return new(null, null, null, null);
            var start = end;
            while (start > 0 && curve[start - 1].Speed > still)
                start--;
            // From the threshold down to standing still, as it began.
            var begins = Zero(curve, start, still);
            var delivery = new CuePhase(begins, contact, TravelAt(contact) - TravelAt(begins));
            CuePhase? backswing = null,
                pause = null;
            // A twitch on the way back is none: it belongs to the pause.
            for (var turn = start; turn > 0 && backswing is null;)
            {
                while (turn > 0 && curve[turn - 1].Speed > -still)
                    turn--;
                var back = turn;
                while (back > 0 && curve[back - 1].Speed < -still)
                    back--;
                var length = TravelAt(curve[back].Time) - TravelAt(curve[turn].Time);
                if (back < turn && length > LeastBackswing)
                {
                    backswing = new(curve[back].Time, curve[turn].Time, length);
                    pause = new(curve[turn].Time, Math.Max(curve[turn].Time, begins), 0);
                }
                turn = back;
            }
            var stop = curve.FindIndex(end + 1, p => p.Speed < still);
            CuePhase? follow =
                _contact is null ? null
                : stop < 0 ? new CuePhase(contact, curve[^1].Time, TravelAt(curve[^1].Time) - TravelAt(contact))
                : new CuePhase(contact, curve[stop].Time, TravelAt(curve[stop].Time) - TravelAt(contact));
            return new(backswing, pause, delivery, follow);
        }

        private static double Zero(List<CuePoint> curve, int start, double still)
        {
            var p = curve[start];
            // Back along its own slope, but not beyond the reading before.
            var back = p.Acceleration > 0 ? Math.Min(p.Speed, still) / p.Acceleration : 0;
            return Math.Max(p.Time - back, start > 0 ? curve[start - 1].Time : p.Time);
        }

        private double TravelAt(double time)
        {
            var i = Array.BinarySearch(_times, time);
            i = i < 0 ? Math.Clamp(~i, 1, _times.Length - 1) : Math.Max(1, i);
            var share = Math.Clamp((time - _times[i - 1]) / (_times[i] - _times[i - 1]), 0, 1);
            return _travel[i - 1] + share * (_travel[i] - _travel[i - 1]);
        }

        // ---- What the speed did at the contact -----------------------------------------------------------------

        /// <summary>By a polynomial through the last part of the delivery: where its speed has a peak, and its doubt.</summary>
        private (SpeedAtContact, Measured?) AtContactOf(List<CuePoint> curve, Measured contact, CuePhase delivery)
        {
            var look = 0.0;
            EndOfDelivery? fit = null;
            // As short a piece as tells it to within a millisecond: a long one bends in more ways than a polynomial.
            foreach (var seconds in Looks)
            {
                look = Math.Min(delivery.Seconds, Math.Max(seconds, 9 * _motion.Step));
                fit = Slopes(contact.Value, look);
                if (fit is { Curvature: < 0 } && fit.SlopeDoubt < -fit.Curvature * Millisecond)
                    break;
            }
            if (fit is null)
                return (SpeedAtContact.Unknown, null);
            // How long ago the slope was nought, or in how long it would have been.
            var (slope, curvature) = (fit.Slope, fit.Curvature);
            var isTurning = curvature < -Sure * fit.CurvatureDoubt;
            var ago = isTurning ? -fit.Root : double.NaN;
            var doubt = isTurning ? Math.Max(contact.Doubt, fit.SlopeDoubt / -curvature) : double.NaN;
            if (Math.Abs(slope) < Sure * fit.SlopeDoubt)
                return isTurning && doubt < look / 2 ? (SpeedAtContact.AtPeak, new Measured(ago, doubt)) : (SpeedAtContact.Unknown, null);
            if (slope > 0)
                return (SpeedAtContact.Rising, isTurning && -ago < look / 2 ? new Measured(ago, doubt) : null);
            var past = isTurning && ago > 0 && ago < look / 2 ? ago : contact.Value - PeakOf(curve, contact.Value, delivery);
            return (SpeedAtContact.PastPeak, new Measured(past, double.IsNaN(doubt) ? look / 4 : doubt));
        }

        /// <summary>How the speed goes on at the contact.</summary>
        /// <param name="Root">The time, from the contact on, at which its slope is nought.</param>
        private sealed record EndOfDelivery(double Slope, double Curvature, double SlopeDoubt, double CurvatureDoubt, double Root);

        /// <summary>Of a polynomial through the travel just before a time; null with too few readings.</summary>
        private EndOfDelivery? Slopes(double t, double look)
        {
            const int few = 12,
                fewest = 6;
            var points = Fit(t, t - look, t - Beside, 1)?.Points ?? 0;
            // Few readings do not bear a polynomial of degree four.
            var degree = points < few ? 3 : 4;
            if (points < fewest || Fit(t, t - look, t - Beside, degree) is not { } x)
                return null;
            // Of the slope of the speed, 2·x2 + 6·x3·t + 12·x4·t², the root next to the contact.
            var (a, b, c) = (12 * x[4], 6 * x[3], 2 * x[2]);
            var inside = b * b - 4 * a * c;
            var root = inside > 0 && Math.Abs(a) > 1e-9 ? 2 * c / (-b + Math.Sqrt(inside)) : -c / b;
            return new(c, b, 2 * _noise * x.DoubtOf(2), 6 * _noise * x.DoubtOf(3), root);
        }

        /// <summary>The time at which the speed was greatest: the top of a parabola through the curve about it.</summary>
        private double PeakOf(List<CuePoint> curve, double contact, CuePhase delivery)
        {
            List<CuePoint> own = [.. curve.Where(p => p.Time > delivery.From && p.Time < contact)];
            if (own.Count < 3)
                return contact;
            var top = own.MaxBy(p => p.Speed);
            var near = own.Where(p => Math.Abs(p.Time - top.Time) <= _window).ToList();
            if (near.Count < 4)
                return top.Time;
            var terms = MathNet.Numerics.Fit.Polynomial([.. near.Select(p => p.Time - top.Time)], [.. near.Select(p => p.Speed)], 2);
            return terms[2] < 0 ? Math.Min(contact, top.Time - terms[1] / (2 * terms[2])) : top.Time;
        }

        // ---- How smooth --------------------------------------------------------------------------------------------

        private int DipsOf(List<CuePoint> delivery)
        {
            if (delivery.Count < 3)
                return 0;
            var (dips, high, low) = (0, 0.0, double.PositiveInfinity);
            var real = Math.Max(0.03 * delivery.Max(p => p.Speed), 3 * SpeedDoubt(_window));
            foreach (var p in delivery)
            {
                if (p.Speed > high && low > high - real)
                    (high, low) = (p.Speed, double.PositiveInfinity);
                else
                    low = Math.Min(low, p.Speed);
                if (low < high - real && p.Speed > low + real)
                    (dips, high, low) = (dips + 1, p.Speed, double.PositiveInfinity);
            }
            return dips;
        }

        private static double? SmoothnessOf(List<CuePoint> delivery)
        {
            if (delivery.Count < 6)
                return null;
            var seconds = delivery[^1].Time - delivery[0].Time;
            var top = delivery.Max(p => p.Speed);
            var jerk = delivery.Zip(
                delivery.Skip(1),
                (a, b) => Math.Pow((b.Acceleration - a.Acceleration) / (b.Time - a.Time), 2) * (b.Time - a.Time)
            );
            var squared = jerk.Sum();
            return squared > 0 && top > 0 ? -Math.Log(squared * Math.Pow(seconds, 3) / (top * top)) : null;
        }
    }
}
