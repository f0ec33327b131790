using System.Collections.Concurrent;
using DeepBaize.Core.Rules;

namespace DeepBaize.Core.Valuing;

/// <summary>
/// The chance to win a frame as a game of visits: two players take turns at the balls in their order; each visit begins with an open pot or
/// without one, and each time the player takes the better of going for the pot, of a safety, and of laying a snooker. Solved exactly for
/// every number of balls left and every lead, by value iteration. Immutable once made.
/// </summary>
internal sealed class FrameChances
{
    /// <summary>Fifteen reds with their colours, the colours, and the colour of a free ball.</summary>
    private const int MostLeft = 2 * Frame.MostReds + ColoursLeft + 1;
    private const int ColoursLeft = 6;

    /// <summary>
    /// A table with colours alone, all of them on their spots, is a number of its own: this many more than there are. It is what a
    /// clearance goes through; once one has been missed or moved the usual numbers hold.
    /// </summary>
    private const int Spotted = MostLeft;

    private const int Tables = MostLeft + ColoursLeft + 1;

    // Logits by which an open pot goes in, and leaves the next, more often with the colours on their spots: from breaks that clear them.
    private const double PotOnSpots = 0.6,
        KeepsOnSpots = 0.6;

    /// <summary>
    /// What a colour after a red makes, in points, as players take them: mostly black and pink. Common practice, no source.
    /// </summary>
    private const int ColourAfterRed = 6;

    /// <summary>A lead so far beyond what is left is the frame, but for ever so many penalties; points.</summary>
    private const int Beyond = 40;

    /// <summary>A safety that is played for a snooker leaves a pot so much more often. Common practice, no source.</summary>
    private const double SnookerLeaves = 0.1;

    private const int Sweeps = 60;
    private const double Settled = 1e-6;

    private static readonly ConcurrentDictionary<(VisitSkill, VisitSkill), FrameChances> Known = new();
    private const int MostKnown = 64;

    // By how much the logits of the three openings differ with what is next, from what they are over a whole frame: colours in their order,
    // one or two reds, three to five, more, and any colour after a red. Counted in frames of self-play (bench -- frames fit).
    private static readonly double[] KeepsByStage = [-1.4, -1.6, -0.05, 0.4, 1.3],
        OpeningByStage = [-0.35, -0.3, 0.35, 0.65, 1.5],
        AfterMissByStage = [-1.05, -0.6, 0.6, 1.35, 1.5];

    /// <summary>What the white's control of an ordinary pot comes to.</summary>
    private const double UsualControl = 0.93;

    private const double MostKeeps = 0.99;

    private readonly VisitSkill[] _skills;

    /// <summary>By player and balls left: chance of an open pot after that player's pot, safety and miss.</summary>
    private readonly double[,] _keeps = new double[2, Tables],
        _opening = new double[2, Tables],
        _afterMiss = new double[2, Tables];

    /// <summary>By player, balls left and lead: with an open pot, and without one.</summary>
    private readonly double[,][] _open = new double[2, Tables][],
        _closed = new double[2, Tables][];

    private FrameChances(VisitSkill mine, VisitSkill theirs)
    {
        _skills = [mine, theirs];
        for (var who = 0; who < 2; who++)
            for (var left = 0; left < Tables; left++)
            {
                _keeps[who, left] = Shifted(_skills[who].Keeps, left > Spotted ? KeepsOnSpots : KeepsByStage[StageOf(left)]);
                _opening[who, left] = Shifted(_skills[who].Opening, OpeningByStage[StageOf(left)]);
                _afterMiss[who, left] = Shifted(_skills[who].OpeningAfterMiss, AfterMissByStage[StageOf(left)]);
            }
        for (var left = 0; left < Tables; left++)
            Solve(left);
    }

    /// <summary>Returns the chances of two players; kept, since solving takes some hundredths of a second.</summary>
    public static FrameChances Of(in VisitSkill mine, in VisitSkill theirs)
    {
        if (Known.Count > MostKnown)
            Known.Clear();
        return Known.GetOrAdd((mine, theirs), pair => new(pair.Item1, pair.Item2));
    }

    /// <summary>Number of shots that clear the table.</summary>
    public static int LeftOf(Frame frame) => (frame.On == BallOn.Colour ? 1 : 0) + 2 * frame.Reds + frame.Colours.Count;

    /// <summary>The table with a number of colours left, and nothing else, all of them on their spots.</summary>
    public static int OnSpots(int colours) => colours == 0 ? 0 : Spotted + colours;

    private static int BallsOf(int left) => left > Spotted ? left - Spotted : left;

    /// <summary>Points of the next ball with a number of them left.</summary>
    public static int PointsOf(int left) =>
        left > Spotted ? PointsOf(BallsOf(left))
        : left > ColoursLeft ? (IsColourAfterRed(left) ? ColourAfterRed : Values.Red)
        : left > 0 ? Values.Black + 1 - left
        : 0;

    private static bool IsColourAfterRed(int left) => left is > ColoursLeft and <= MostLeft && (left - ColoursLeft) % 2 == 1;

    private static int StageOf(int left)
    {
        var reds = (left - ColoursLeft) / 2;
        return BallsOf(left) <= ColoursLeft ? 0
            : IsColourAfterRed(left) ? 4
            : reds <= 2 ? 1
            : reds <= 5 ? 2
            : 3;
    }

    private static double Shifted(double chance, double logits) => 1 / (1 + (1 - chance) / chance * Math.Exp(-logits));

    /// <summary>A colour that is missed after a red is out of its turn.</summary>
    private static int AfterMiss(int left) => IsColourAfterRed(left) ? left - 1 : BallsOf(left);

    private static int PenaltyOf(int left) =>
        BallsOf(left) <= ColoursLeft ? Math.Max(Values.LeastPenalty, PointsOf(left)) : Values.LeastPenalty;

    /// <summary>Chance of a player at a table that has been looked at.</summary>
    /// <param name="who">0 or 1.</param>
    /// <param name="left">Balls left.</param>
    /// <param name="lead">Lead of the player who is asked about, points.</param>
    /// <param name="pot">What the pot that is on leads to.</param>
    /// <param name="foul">Chance that no ball on is hit.</param>
    /// <param name="opening">Chance that the best safety leaves an open pot.</param>
    public double Of(int who, int left, int lead, in NextPot pot, double foul, double opening)
    {
        if (IsSettled(left, lead))
            return AtEnd(lead);
        var chance = (1 - foul) * Math.Max(Attempt(who, left, lead, pot), Safety(who, left, lead, opening));
        return foul == 0 ? chance : chance + foul * AfterFoul(who, left, lead);
    }

    /// <summary>Chance of a player who comes to a table that nobody has looked at, after a miss of the other one.</summary>
    public double AfterMissOf(int other, int left, int lead) => Usual(1 - other, left, lead, _afterMiss[other, left]);

    /// <summary>Chance of a player who comes to a full table after the break-off of the other one.</summary>
    public double AfterBreakOf(int other) => Usual(1 - other, MostLeft, 0, _opening[other, MostLeft]);

    /// <summary>Chance of a player with the black on its spot again, the white in hand.</summary>
    public double Respotted(int who) => Usual(who, 1, 0, 0);

    private double Usual(int who, int left, int lead, double opening) =>
        IsSettled(left, lead) ? AtEnd(lead) : opening * At(_open, who, left, lead) + (1 - opening) * At(_closed, who, left, lead);

    /// <summary>After this player's foul.</summary>
    private double AfterFoul(int who, int left, int lead)
    {
        if (BallsOf(left) == 1)
            return AtEnd(lead - Values.Black);
        return 1 - AfterMissOf(who, AfterMiss(left), PenaltyOf(left) - lead);
    }

    private static double AtEnd(int lead) =>
        lead > 0 ? 1
        : lead < 0 ? 0
        : 0.5;

    /// <summary>With the black alone, a lead that it cannot turn round is the frame (rule 4).</summary>
    private static bool IsSettled(int left, int lead) =>
        left == 0 || (BallsOf(left) == 1 && Math.Abs(lead) > Values.Black) || Math.Abs(lead) > Reach[BallsOf(left)];

    /// <summary>Leads that are worked out, by the number of balls left; points.</summary>
    private static readonly int[] Reach = ReachOf();

    private static int[] ReachOf()
    {
        var reach = new int[MostLeft + 1];
        var points = 0;
        for (var left = 1; left <= MostLeft; left++)
        {
            points += IsColourAfterRed(left) ? Values.Black : PointsOf(left);
            reach[left] = points + Beyond;
        }
        return reach;
    }

    private void Solve(int left)
    {
        var most = Reach[BallsOf(left)];
        for (var who = 0; who < 2; who++)
            (_open[who, left], _closed[who, left]) = (Start(most), Start(most));
        if (left == 0)
            return;
        for (var sweep = 0; sweep < Sweeps; sweep++)
        {
            var change = 0.0;
            for (var who = 0; who < 2; who++)
            {
                var skill = _skills[who];
                var (open, closed) = (_open[who, left], _closed[who, left]);
                var pot = left > Spotted ? Shifted(skill.Pot, PotOnSpots) : skill.Pot;
                var next = new NextPot(pot, PointsOf(left), left > Spotted ? OnSpots(BallsOf(left) - 1) : left - 1, UsualControl);
                for (var lead = -most; lead <= most; lead++)
                {
                    if (IsSettled(left, lead))
                        continue;
                    var safety = Safety(who, left, lead, _opening[who, left]);
                    var now = Math.Max(Attempt(who, left, lead, next), safety);
                    change = Math.Max(change, Math.Abs(now - open[lead + most]));
                    open[lead + most] = now;
                    now = Math.Max(Attempt(who, left, lead, next with { Chance = skill.Long }), safety);
                    change = Math.Max(change, Math.Abs(now - closed[lead + most]));
                    closed[lead + most] = now;
                }
            }
            if (change < Settled)
                break;
        }
    }

    private static double[] Start(int most) => [.. Enumerable.Range(-most, 2 * most + 1).Select(AtEnd)];

    private double Attempt(int who, int left, int lead, in NextPot pot)
    {
        if (pot.Chance <= 0)
            return 0;
        var after = lead + pot.Points;
        var missed = 1 - AfterMissOf(who, AfterMiss(left), -lead);
        var keeps = Math.Min(MostKeeps, _keeps[who, pot.Left] * pot.Control / UsualControl);
        return pot.Chance * Usual(who, pot.Left, after, keeps) + (1 - pot.Chance) * missed;
    }

    /// <summary>The better of a plain safety and of one that is to lay a snooker.</summary>
    private double Safety(int who, int left, int lead, double opening)
    {
        var skill = _skills[who];
        var (after, other) = (AfterMiss(left), 1 - who);
        // With the black alone any foul is the frame.
        var paid = BallsOf(left) == 1 ? AtEnd(lead + Values.Black) : Usual(who, after, lead + PenaltyOf(left), _opening[other, after]);
        var (open, closed) = (1 - Usual(other, after, -lead, 1), 1 - Usual(other, after, -lead, 0));
        double Played(double leaves, double pays) => pays * paid + (1 - pays) * (leaves * open + (1 - leaves) * closed);
        var best = Math.Max(Played(opening, 0), Played(Math.Min(1, opening + SnookerLeaves), skill.Snooker));
        return (1 - skill.Foul) * best + skill.Foul * AfterFoul(who, left, lead);
    }

    private static double At(double[,][] table, int who, int left, int lead) => table[who, left][lead + Reach[BallsOf(left)]];
}

/// <summary>The pot that is on, in the game of visits.</summary>
/// <param name="Chance">That it goes in, 0–1.</param>
/// <param name="Points">It makes.</param>
/// <param name="Left">Balls left after it.</param>
/// <param name="Control">How well the white can be moved on from it, and how much of the rest is open, 0–1.</param>
public readonly record struct NextPot(double Chance, int Points, int Left, double Control);
