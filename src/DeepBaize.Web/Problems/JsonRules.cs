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
        json.TypeInfoResolver = (json.TypeInfoResolver ?? new DefaultJsonTypeInfoResolver()).WithAddedModifier(WithStorableContents);
        return json;
    }

    /// <summary>
    /// Checks what annotations of C# do not reach: an element of a list is not null; no text holds U+0000, which PostgreSQL has not; and no
    /// number lies beyond a double, as 1e400, which would be read as infinity.
    /// </summary>
    private static void WithStorableContents(JsonTypeInfo type)
    {
        if (type.Kind != JsonTypeInfoKind.Object)
            return;
        var contents = type.Properties.Where(p => p.Get is not null && IsChecked(p.PropertyType)).ToList();
        if (contents.Count == 0)
            return;
        var before = type.OnDeserialized;
        type.OnDeserialized = read =>
        {
            before?.Invoke(read);
            if (contents.Any(p => p.Get!(read) is { } value && !IsStorable(value)))
                throw new JsonException("A list has an element that is null, a text holds U+0000, or a number is beyond a double.");
        };
    }

    private static bool IsChecked(Type type) =>
        type == typeof(double) || type == typeof(double?) || type.IsAssignableTo(typeof(IEnumerable));

    private static bool IsStorable(object? value) =>
        value switch
        {
            null => false,
            string text => !text.Contains('\0'),
            double number => double.IsFinite(number),
            IDictionary map => map.Values.Cast<object?>().All(v => v is null || IsStorable(v)),
            IEnumerable list => list.Cast<object?>().All(IsStorable),
            _ => true,
        };
}
