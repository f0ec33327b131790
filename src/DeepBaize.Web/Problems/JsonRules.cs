using System.Collections;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;

namespace DeepBaize.Web.Problems;

/// <summary>How strictly JSON is read, in requests and files alike: what could be meant in two ways is refused.</summary>
internal static class JsonRules
{
    public static JsonSerializerOptions Strict(this JsonSerializerOptions json)
    {
        json.NumberHandling = JsonNumberHandling.Strict;
        json.RespectNullableAnnotations = true;
        json.AllowDuplicateProperties = false;
        json.Converters.Add(new FiniteNumbers());
        json.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
        json.TypeInfoResolver = (json.TypeInfoResolver ?? new DefaultJsonTypeInfoResolver()).WithAddedModifier(WithStorableContents);
        return json;
    }

    /// <summary>A number beyond a double, as 1e400, is refused: it would be read as infinity.</summary>
    private sealed class FiniteNumbers : JsonConverter<double>
    {
        public override double Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.Number && reader.GetDouble() is var number && double.IsFinite(number)
                ? number
                : throw new JsonException("This is no number of the range of a double.");

        public override void Write(Utf8JsonWriter writer, double value, JsonSerializerOptions options) => writer.WriteNumberValue(value);
    }

    /// <summary>
    /// What annotations of C# do not reach: an element of a list is not null; and no text holds U+0000, which PostgreSQL has not.
    /// </summary>
    private static void WithStorableContents(JsonTypeInfo type)
    {
        if (type.Kind != JsonTypeInfoKind.Object)
            return;
        var contents = type.Properties.Where(p => p.Get is not null && p.PropertyType.IsAssignableTo(typeof(IEnumerable))).ToList();
        if (contents.Count == 0)
            return;
        var before = type.OnDeserialized;
        type.OnDeserialized = read =>
        {
            before?.Invoke(read);
            if (contents.Any(p => p.Get!(read) is { } value && !IsStorable(value)))
                throw new JsonException("A list has an element that is null, or a text holds U+0000.");
        };
    }

    private static bool IsStorable(object? value) =>
        value switch
        {
            null => false,
            string text => !text.Contains('\0'),
            IDictionary => true,
            IEnumerable list => list.Cast<object?>().All(IsStorable),
            _ => true,
        };
}
