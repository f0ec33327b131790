using DeepBaize.Core.Strokes;

namespace DeepBaize.Core.Search;

/// <summary>How much work goes into one choice of a stroke: counted, not timed, so that the same question has the same answer.</summary>
public sealed record Effort
{
    // Of the cue, m/s.
    private const double SoftestSpeed = 0.47,
        HardestSpeed = 4.4;

    public static double Softest { get; } = Pace.OfCueSpeed(SoftestSpeed);

    public static double Hardest { get; } = Pace.OfCueSpeed(HardestSpeed);

    /// <summary>All that are tried, laid out in speed.</summary>
    public IEnumerable<double> Paces => Pace.Ladder(SoftestSpeed, HardestSpeed, SpeedRatio);

    /// <summary>So many pots that look best are tried.</summary>
    public required int Pots { get; init; }

    /// <summary>
    /// Whether pots are tried that can only go in off the far jaw: their aim takes long to find, and they are seldom good.
    /// </summary>
    public bool OffJaws { get; init; }

    /// <summary>Of the tip without side, tips.</summary>
    public required double[] Heights { get; init; }

    /// <summary>Tips.</summary>
    public double[] Sides { get; init; } = [];

    /// <summary>Of the tip with side, tips.</summary>
    public double[] SideHeights { get; init; } = [];

    /// <summary>So many times as fast as the one before is each speed that is tried.</summary>
    public required double SpeedRatio { get; init; }

    /// <summary>So many strokes are played with errors.</summary>
    public required int Sifted { get; init; }

    /// <summary>So often each.</summary>
    public required int Samples { get; init; }

    /// <summary>So many are bettered by small changes.</summary>
    public int Refined { get; init; }

    /// <summary>Twice as many as are deepened are weighed anew, each by so many strokes; 0: none.</summary>
    public int Weighed { get; init; }

    /// <summary>Of so many it is asked what would be played next, from each place where the white may stop.</summary>
    public int Deepened { get; init; }

    /// <summary>So many places each.</summary>
    public int DeepSamples { get; init; }

    /// <summary>The steps of the refinement are halved so often.</summary>
    public int Halvings { get; init; } = 1;

    /// <summary>So many are told, each by strokes that had no part in the choice.</summary>
    public int Told { get; init; } = 1;

    /// <summary>So many strokes at most for a chance that is told.</summary>
    public int MostTold { get; init; } = 1024;

    /// <summary>
    /// For the value that is told it is asked so often what would be played next; 0: nothing is told but what has chosen.
    /// </summary>
    public int Final { get; init; }

    /// <summary>What of it the bound on the work allows.</summary>
    public Effort Within(SearchContext context) =>
        context.Share >= 1
            ? this
            : this with
            {
                SpeedRatio = Math.Pow(SpeedRatio, 1 / Math.Sqrt(context.Share)),
                Sifted = context.Bounded(Sifted, 8),
                Samples = context.Bounded(Samples, 8),
                Refined = context.Bounded(Refined, 1),
                Weighed = context.Bounded(Weighed, 16),
                Deepened = context.Bounded(Deepened, 1),
                DeepSamples = context.Bounded(DeepSamples, 8),
                MostTold = context.Bounded(MostTold, 128),
                Final = context.Bounded(Final, 8),
            };

    public static Effort Full { get; } =
        new()
        {
            Pots = 10,
            OffJaws = true,
            Heights = [-1.2, -0.8, -0.4, 0, 0.4, 0.8, 1.2],
            Sides = [-0.8, 0.8],
            SideHeights = [-0.7, 0, 0.7],
            SpeedRatio = 1.17,
            Sifted = 60,
            Samples = 16,
            Refined = 12,
            Weighed = 64,
            Deepened = 6,
            DeepSamples = 12,
            Told = 5,
            Final = 16,
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
            Sifted = 30,
            Samples = 12,
            Refined = 4,
            Weighed = 32,
            Deepened = 2,
            DeepSamples = 8,
            MostTold = 256,
            Final = 8,
        };

    /// <summary>For what would be played from one of many places.</summary>
    public static Effort Glance { get; } =
        new()
        {
            Pots = 3,
            Heights = [-0.9, 0, 0.9],
            SpeedRatio = 1.56,
            Sifted = 6,
            Samples = 8,
        };
}
