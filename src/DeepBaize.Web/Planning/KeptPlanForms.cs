using System.Text.Json.Nodes;

namespace DeepBaize.Web.Planning;

/// <summary>
/// Plans that were kept in an earlier form, brought into the present one: figures that did not know their error are told without one.
/// </summary>
public static class KeptPlanForms
{
    public static JsonNode Present(JsonNode body)
    {
        var answer = body["answer"];
        var isPoints = (body["preferences"]?["target"]?.GetValue<string>() ?? "mostPoints") == "mostPoints";
        if (answer is JsonObject kept)
        {
            kept.TryAdd("looked", 1);
            kept.TryAdd("unit", isPoints ? "points" : "target");
            kept.TryAdd("modelError", 0);
        }
        foreach (var plan in Items(answer?["plans"]))
        {
            var prospect = plan["prospect"] as JsonObject;
            var breaks = prospect?["breaks"]?.GetValue<int>() ?? 0;
            foreach (var shot in Items(plan["shots"]))
            {
                Known(shot, breaks, "alive");
                Known(shot["choice"], 0, "chance", "foul", "holds", "value");
            }
            Known(prospect, breaks, "points", "target", "cleared", "endsShare");
            if (prospect?["alive"] is JsonArray alive)
                for (var i = 0; i < alive.Count; i++)
                    if (alive[i] is JsonValue share)
                        alive[i] = Estimate(share, breaks);
            prospect?.Remove("breaks");
            // Then it was valued by points, or by the chance of its target.
            if (prospect is not null && prospect["value"] is null)
                prospect["value"] = ((isPoints ? null : prospect["target"]) ?? prospect["points"])?.DeepClone();
        }
        foreach (var alternative in Items(answer?["alternatives"]))
        {
            Known(alternative["choice"], 0, "chance", "foul", "holds", "value");
            // It was ranked by its value and said by how much that fell short of the best; later by what its breaks made.
            if (alternative["value"] is null && (alternative["made"] ?? alternative["choice"]?["value"]) is { } figure)
            {
                (alternative["value"], alternative["points"]) = (figure.DeepClone(), figure.DeepClone());
                alternative.TryAdd("isLevel", false);
            }
            alternative.Remove("lacks");
            alternative.Remove("made");
        }
        return body;
    }

    private static IEnumerable<JsonObject> Items(JsonNode? list) => (list as JsonArray)?.OfType<JsonObject>() ?? [];

    private static void Known(JsonNode? of, int strokes, params string[] fields)
    {
        foreach (var field in fields)
            if (of?[field] is JsonValue figure)
                of[field] = Estimate(figure, strokes);
    }

    private static JsonObject Estimate(JsonValue figure, int strokes) =>
        new()
        {
            ["value"] = figure.DeepClone(),
            ["error"] = 0,
            ["strokes"] = strokes,
        };
}
