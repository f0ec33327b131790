using DeepBaize.Core.Strokes;

namespace DeepBaize.Core.Search;

/// <summary>Amount of work for one choice of a stroke: counted, not timed, so that the same question has the same answer.</summary>
public sealed record Effort
{
    // Cue speeds, m/s.
    private const double SoftestSpeed = 0.47,
        HardestSpeed = 4.4;

    /// <summary>Softest pace that is tried.</summary>
    public static double Softest { get; } = Pace.OfCueSpeed(SoftestSpeed);

    /// <summary>Hardest pace that is tried.</summary>
    public static double Hardest { get; } = Pace.OfCueSpeed(HardestSpeed);

    /// <summary>The paces that are tried, evenly spaced in the logarithm of speed.</summary>
    public IEnumerable<double> Paces => Pace.Ladder(SoftestSpeed, HardestSpeed, SpeedRatio);

    /// <summary>Number of pots that are tried, the most promising first.</summary>
    public required int Pots { get; init; }

    /// <summary>
    /// Whether to try pots that can only go in off the far jaw: their aim takes long to find, and they are seldom good.
    /// </summary>
    public bool OffJaws { get; init; }

    /// <summary>Heights of the tip for strokes without side, tips.</summary>
    public required double[] Heights { get; init; }

    /// <summary>Sides of the tip, tips.</summary>
    public double[] Sides { get; init; } = [];

    /// <summary>Heights of the tip for strokes with side, tips.</summary>
    public double[] SideHeights { get; init; } = [];

    /// <summary>Ratio of each speed on the grid to the one before.</summary>
    public required double SpeedRatio { get; init; }

    /// <summary>Number of strokes screened with errors.</summary>
    public required int Screened { get; init; }

    /// <summary>Number of samples of each screened stroke.</summary>
    public required int Samples { get; init; }

    /// <summary>Number of strokes refined by small changes.</summary>
    public int Refined { get; init; }

    /// <summary>
    /// Number of samples for each re-evaluated stroke, of which there are twice <see cref="TwoPly"/>; 0: no re-evaluation.
    /// </summary>
    public int Reevaluated { get; init; }

    /// <summary>Number of strokes whose next stroke is searched for, from each place where the white may stop.</summary>
    public int TwoPly { get; init; }

    /// <summary>Number of such places for each stroke.</summary>
    public int TwoPlySamples { get; init; }

    /// <summary>Number of times that refinement halves its steps.</summary>
    public int Halvings { get; init; } = 1;

    /// <summary>Number of strokes reported, each estimated from samples that did not select it.</summary>
    public int Reported { get; init; } = 1;

    /// <summary>Largest number of samples for a reported chance.</summary>
    public int MostReportStrokes { get; init; } = 1024;

    /// <summary>Number of look-ahead samples for a reported value; 0: only the figures that ranked the strokes are given.</summary>
    public int LookAheadSamples { get; init; }

    /// <summary>Returns this effort reduced to what the bound on the work allows.</summary>
    public Effort Within(SearchContext context) =>
        context.WorkShare >= 1
            ? this
            : this with
            {
                SpeedRatio = Math.Pow(SpeedRatio, 1 / Math.Sqrt(context.WorkShare)),
                Screened = context.Bounded(Screened, 8),
                Samples = context.Bounded(Samples, 8),
                Refined = context.Bounded(Refined, 1),
                Reevaluated = context.Bounded(Reevaluated, 16),
                TwoPly = context.Bounded(TwoPly, 1),
                TwoPlySamples = context.Bounded(TwoPlySamples, 8),
                MostReportStrokes = context.Bounded(MostReportStrokes, 128),
                LookAheadSamples = context.Bounded(LookAheadSamples, 8),
            };

    /// <summary>For the stroke to be played now.</summary>
    public static Effort Full { get; } =
        new()
        {
            Pots = 10,
            OffJaws = true,
            Heights = [-1.2, -0.8, -0.4, 0, 0.4, 0.8, 1.2],
            Sides = [-0.8, 0.8],
            SideHeights = [-0.7, 0, 0.7],
            SpeedRatio = 1.17,
            Screened = 60,
            Samples = 16,
            Refined = 12,
            Reevaluated = 64,
            TwoPly = 6,
            TwoPlySamples = 12,
            Reported = 5,
            LookAheadSamples = 16,
        };

    /// <summary>For the later shots of a plan.</summary>
    public static Effort Later { get; } =
        new()
        {
            Pots = 6,
            Heights = [-1.1, -0.55, 0, 0.55, 1.1],
            Sides = [-0.7, 0.7],
            SideHeights = [-0.5, 0.5],
            SpeedRatio = 1.25,
            Screened = 30,
            Samples = 12,
            Refined = 4,
            Reevaluated = 32,
            TwoPly = 2,
            TwoPlySamples = 8,
            MostReportStrokes = 256,
            LookAheadSamples = 8,
        };

    /// <summary>For what would be played from one of many places.</summary>
    public static Effort Shallow { get; } =
        new()
        {
            Pots = 3,
            Heights = [-0.9, 0, 0.9],
            SpeedRatio = 1.56,
            Screened = 6,
            Samples = 8,
        };
}
