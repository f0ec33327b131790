namespace DeepBaize.Core.Search;

/// <summary>How much work goes into one choice of a stroke: counted, not timed, so that the same question has the same answer.</summary>
public sealed record Effort
{
    public const double Softest = 1.5,
        Hardest = 8.5;

    /// <summary>So many pots that look best are tried.</summary>
    public required int Pots { get; init; }

    /// <summary>Of the tip without side, tips.</summary>
    public required double[] Heights { get; init; }

    /// <summary>Tips.</summary>
    public double[] Sides { get; init; } = [];

    /// <summary>Of the tip with side, tips.</summary>
    public double[] SideHeights { get; init; } = [];

    public required double PaceStep { get; init; }

    /// <summary>So many strokes are played with errors.</summary>
    public required int Sifted { get; init; }

    /// <summary>So often each.</summary>
    public required int Samples { get; init; }

    /// <summary>So many are bettered by small changes.</summary>
    public int Refined { get; init; }

    /// <summary>Of so many it is asked what would be played next, from each place where the white may stop.</summary>
    public int Deepened { get; init; }

    /// <summary>So many places each.</summary>
    public int DeepSamples { get; init; }

    /// <summary>So many strokes are played for the chances that are told.</summary>
    public int Final { get; init; }

    public static Effort Full { get; } =
        new()
        {
            Pots = 10,
            Heights = [-1.2, -0.8, -0.4, 0, 0.4, 0.8, 1.2],
            Sides = [-0.8, 0.8],
            SideHeights = [-0.7, 0, 0.7],
            PaceStep = 0.5,
            Sifted = 60,
            Samples = 14,
            Refined = 12,
            Deepened = 8,
            DeepSamples = 14,
            Final = 160,
        };

    /// <summary>For the later shots of a plan.</summary>
    public static Effort Later { get; } =
        new()
        {
            Pots = 7,
            Heights = [-1.1, -0.55, 0, 0.55, 1.1],
            Sides = [-0.7, 0.7],
            SideHeights = [-0.5, 0.5],
            PaceStep = 0.7,
            Sifted = 36,
            Samples = 12,
            Refined = 8,
            Deepened = 4,
            DeepSamples = 10,
            Final = 120,
        };

    /// <summary>For what would be played from one of many places.</summary>
    public static Effort Glance { get; } =
        new()
        {
            Pots = 3,
            Heights = [-0.9, -0.3, 0.3, 0.9],
            PaceStep = 0.9,
            Sifted = 10,
            Samples = 10,
        };
}
