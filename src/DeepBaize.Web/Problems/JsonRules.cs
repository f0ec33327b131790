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
        json.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
        json.Converters.Add(new StorableText());
        json.TypeInfoResolver = (json.TypeInfoResolver ?? new DefaultJsonTypeInfoResolver()).WithAddedModifier(WithoutNullElements);
        return json;
    }

    /// <summary>The annotations of C# reach a property, but not the elements of the list in it.</summary>
    private static void WithoutNullElements(JsonTypeInfo type)
    {
        if (type.Kind != JsonTypeInfoKind.Object)
            return;
        var lists = type
            .Properties.Where(p => p.PropertyType != typeof(string) && p.PropertyType.IsAssignableTo(typeof(IEnumerable)))
            .ToList();
        if (lists.Count == 0)
            return;
        var before = type.OnDeserialized;
        type.OnDeserialized = read =>
        {
            before?.Invoke(read);
            if (lists.Any(p => HasNull(p.Get?.Invoke(read))))
                throw new JsonException("A list has an element that is null.");
        };
    }

    private static bool HasNull(object? value) =>
        value switch
        {
            string or IDictionary => false,
            IEnumerable list => list.Cast<object?>().Any(item => item is null || item is IEnumerable && HasNull(item)),
            _ => false,
        };

    /// <summary>PostgreSQL has no character U+0000, and half a pair of surrogates is no character at all.</summary>
    private sealed class StorableText : JsonConverter<string>
    {
        public override string? Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.Null ? null
            : reader.TokenType == JsonTokenType.String ? Checked(reader.GetString()!)
            : throw new JsonException("This is no text.");

        public override string ReadAsPropertyName(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
            Checked(reader.GetString()!);

        public override void Write(Utf8JsonWriter writer, string value, JsonSerializerOptions options) => writer.WriteStringValue(value);

        public override void WriteAsPropertyName(Utf8JsonWriter writer, string value, JsonSerializerOptions options) =>
            writer.WritePropertyName(value);

        private static string Checked(string text) =>
            text.Contains('\0') ? throw new JsonException("A text holds the character U+0000.") : text;
    }
}
