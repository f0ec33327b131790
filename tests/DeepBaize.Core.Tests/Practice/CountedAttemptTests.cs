using System.Text.Json;
using System.Text.Json.Serialization;
using DeepBaize.Core.Practice;

namespace DeepBaize.Core.Tests.Practice;

/// <summary>One table of cases for the core and the page: tests/cases/counted-attempts.json, each case worked out by hand.</summary>
public class CountedAttemptTests
{
    private sealed record Place(double X, double Y)
    {
        public static Vec2? Of(Place? place) => place is null ? null : new(place.X, place.Y);
    }

    private sealed record Case(
        string Name,
        IReadOnlyList<Demand> Demands,
        bool? Said,
        Place? White,
        Place? Ball,
        IReadOnlyList<string> Reasons,
        int? Score,
        bool Done
    );

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    [Fact]
    public void An_attempt_counts_as_the_table_of_cases_says()
    {
        var cases = JsonSerializer.Deserialize<List<Case>>(File.ReadAllText(SourceTree.Path("tests/cases/counted-attempts.json")), Json)!;
        Assert.True(cases.Count > 30);
        Assert.All(cases, c =>
        {
            var step = new Step
            {
                Label = c.Name,
                Balls = [],
                Demands = c.Demands,
            };
            var seen = Observation.Counted(c.Said, Place.Of(c.White), Place.Of(c.Ball), c.Reasons, c.Score);
            Assert.True(step.Counts(seen) == c.Done, c.Name);
        });
    }
}
