using DeepBaize.Data.Cues;
using DeepBaize.Data.Players;
using DeepBaize.Data.Tables;

namespace DeepBaize.Data.Demo;

/// <summary>The invented club: who plays there, on what, with what.</summary>
public static class DemoClub
{
    public const string Tilda = "Tilda Brackwater",
        Orrin = "Orrin Sedgefold",
        TableTwo = "Copperbeck, table 2";

    /// <returns>What is in hand at first: Tilda, table 2, her cue; and who plays there too.</returns>
    public static (Guid Player, Guid Other, Guid Table, Guid Cue) Add(DeepBaizeContext db, DateTimeOffset now)
    {
        ClubPlayer Player(string name, string hand, double height, string skill) =>
            db
                .Players.Add(
                    new()
                    {
                        OwnerId = User.LocalId,
                        Name = name,
                        Hand = hand,
                        Height = height,
                        Skill = skill,
                        CreatedAt = now,
                        UpdatedAt = now,
                    }
                )
                .Entity;
        ClubTable Table(string name, Dictionary<string, double> conditions) =>
            db
                .Tables.Add(
                    new()
                    {
                        OwnerId = User.LocalId,
                        Name = name,
                        Conditions = conditions,
                        CreatedAt = now,
                        UpdatedAt = now,
                    }
                )
                .Entity;
        ClubCue Cue(string name, string tip, Dictionary<string, double> conditions) =>
            db
                .Cues.Add(
                    new()
                    {
                        OwnerId = User.LocalId,
                        Name = name,
                        Tip = tip,
                        Conditions = conditions,
                        CreatedAt = now,
                        UpdatedAt = now,
                    }
                )
                .Entity;
        var tilda = Player(Tilda, "right", 1.75, "county");
        var orrin = Player(Orrin, "left", 1.83, "club");
        var table = Table(TableTwo, []);
        Table("Copperbeck, table 1 (slow)", new() { ["rollingFriction"] = 0.015, ["cushionRestitution"] = 0.95 });
        var cue = Cue("Tilda's ash", "9.5 mm, medium", []);
        Cue("The club's house cue", "10 mm, soft", new() { ["endMassRatio"] = 20 });
        return (tilda.Id, orrin.Id, table.Id, cue.Id);
    }
}
