using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Valuing;

/// <summary>
/// How easily a player can turn a table to safety: the chance that the best safety from it leaves an open pot, from how the white lies and
/// how the balls on lie. From near the balls the white is sent back to baulk with ease; from the baulk cushion it is not. Logistic, fitted
/// to the safeties that the search finds from tables of self-play (<c>bench -- frames fit</c>).
/// </summary>
public sealed class SafetyEase(Player player)
{
    // Logits: what each adds.
    private const double Level = -0.15,
        PerMetre = 0.36,
        Tight = 0.7,
        Hidden = 0.8,
        InBaulk = -0.1,
        Open = 1.75;

    /// <summary>As many balls that can be potted somewhere are as good as all.</summary>
    private const double ManyOpen = 6;
    private const double FarAway = 2.5;

    private readonly double _usual = VisitSkill.Of(player).Opening;

    /// <summary>From a table that nobody has looked at.</summary>
    public double Usual => _usual;

    /// <summary>What the fit knows of a table, with a 1 in front.</summary>
    public static double[] Features(Situation situation, PotLines lines, in Sight sight, in Lie lie)
    {
        var open = 0;
        for (var slot = 1; slot < lines.Count; slot++)
            if (situation.Frame.MayPlay(lines.BallIn(slot)) && lines.IsFree(slot))
                open++;
        return
        [
            1,
            Math.Min(FarAway, sight.Distance) - 1,
            lie.IsTight ? 1 : 0,
            1 - sight.Seen,
            situation.Layout.White.At.X < BaulkLineX ? 1 : 0,
            Math.Min(1, open / ManyOpen) - 0.5,
        ];
    }

    /// <summary>The chance that the best safety from here leaves an open pot.</summary>
    public double Of(Situation situation, PotLines lines, in Sight sight, in Lie lie)
    {
        var x = Features(situation, lines, sight, lie);
        var logit =
            Math.Log(_usual / (1 - _usual)) + Level * x[0] + PerMetre * x[1] + Tight * x[2] + Hidden * x[3] + InBaulk * x[4] + Open * x[5];
        return 1 / (1 + Math.Exp(-logit));
    }
}
