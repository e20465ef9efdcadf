<?xml version="1.0" encoding="utf-8"?>
<!DOCTYPE TS>
<TS version="2.1" language="de" sourcelanguage="en">
<context><name>Furnel</name>
<message><source>The file could not be written</source>
<translation>Die Datei konnte nicht geschrieben werden</translation></message>
<message><source>Writing an archive</source>
<translation>Ein Archiv schreiben</translation></message>
<message><source>Check the free space and the permissions of the folder; what was there before is unchanged</source>
<translation>Prüfe den freien Platz und die Rechte des Ordners; was vorher da war, ist unverändert</translation></message>
<message><source>two of its files would have one name</source>
<translation>zwei seiner Dateien hätten denselben Namen</translation></message>
<message><source>Decoding a texture level</source>
<translation>Eine Texturstufe entpacken</translation></message>
<message><source>Encoding a texture level</source>
<translation>Eine Texturstufe packen</translation></message>
<message><source>Encoding {0} {1}</source>
<translation>{0} {1} packen</translation></message>
<message><source>Block compression</source>
<translation>Blockkompression</translation></message>
<message><source>a level has at least one pixel</source>
<translation>eine Stufe hat mindestens ein Pixel</translation></message>
<message><source>it needs {0} bytes and there are {1}</source>
<translation>es braucht {0} Bytes, und es sind {1} da</translation></message>
<message><source>The file is cut short: take a fresh copy of it</source>
<translation>Die Datei ist abgeschnitten: hol eine frische Kopie</translation></message>
<message><source>there is no quality {0}</source>
<translation>eine Güte {0} gibt es nicht</translation></message>
<message><source>Use fast, good or best</source>
<translation>Nimm fast, good oder best</translation></message>
<message><source>pixels are {0} {1}</source>
<translation>die Pixel sind {0} {1}</translation></message>
<message><source>Give (height, width, {0}) {1}</source>
<translation>Gib (Höhe, Breite, {0}) {1}</translation></message>
<message><source>there is no block format {0}</source>
<translation>ein Blockformat {0} gibt es nicht</translation></message>
<message><source>Known ones: {0}</source>
<translation>Bekannt sind: {0}</translation></message>
<message><source>Catalogue up to date</source>
<translation>Der Katalog ist aktuell</translation></message>
<message><source>Scanning the game</source>
<translation>Das Spiel durchgehen</translation></message>
<message><source>Names are case-sensitive: it is {0}</source>
<translation>Groß- und Kleinschreibung zählen: es heißt {0}</translation></message>
<message><source>Find it with `furnel find`</source>
<translation>Such es mit `furnel find`</translation></message>
<message><source>Looking up an asset</source>
<translation>Ein Asset nachschlagen</translation></message>
<message><source>another version</source>
<translation>eine andere Version</translation></message>
<message><source>the game has no such asset</source>
<translation>das Spiel hat kein solches Asset</translation></message>
<message><source>Looking into the catalogue</source>
<translation>In den Katalog sehen</translation></message>
<message><source>Scanning {0=}</source>
<translation>{0} wird durchgegangen</translation></message>
<message><source>Opening the catalogue</source>
<translation>Den Katalog öffnen</translation></message>
<message><source>Try again in a moment</source>
<translation>Versuch es gleich noch einmal</translation></message>
<message><source>Delete the file</source>
<translation>Lösche die Datei</translation></message>
<message><source>Learning what everything looks and sounds like</source>
<translation>Lernen, wie alles aussieht und klingt</translation></message>
<message><source>no pixels</source>
<translation>keine Pixel</translation></message>
<message><source>Taking out</source>
<translation>Herausnehmen</translation></message>
<message><source>there is no form {0}</source>
<translation>eine Form {0} gibt es nicht</translation></message>
<message><source>Use raw, png or wav</source>
<translation>Nimm raw, png oder wav</translation></message>
<message><source>Opening an archive</source>
<translation>Ein Archiv öffnen</translation></message>
<message><source>Unpacking {0=}</source>
<translation>{0} wird entpackt</translation></message>
<message><source>Say which layout it has, or describe it with one (docs/layouts.md)</source>
<translation>Sag, welches Layout es hat, oder beschreibe es mit einem (docs/layouts.md)</translation></message>
<message><source>Making a file</source>
<translation>Eine Datei machen</translation></message>
<message><source>Packing a folder</source>
<translation>Einen Ordner packen</translation></message>
<message><source>there is no such file</source>
<translation>eine solche Datei gibt es nicht</translation></message>
<message><source>Check the path</source>
<translation>Prüfe den Pfad</translation></message>
<message><source>it is no ZIP, TAR, 7z or ISO image, and of no known layout</source>
<translation>es ist weder ein ZIP-, TAR-, 7z- noch ISO-Archiv und hat kein bekanntes Layout</translation></message>
<message><source>it is one picture or sound, and there are {0} files</source>
<translation>es ist ein einzelnes Bild oder Geräusch, und da sind {0} Dateien</translation></message>
<message><source>Put one file into the folder</source>
<translation>Leg eine einzige Datei in den Ordner</translation></message>
<message><source>there is no such folder</source>
<translation>einen solchen Ordner gibt es nicht</translation></message>
<message><source>Unpacking an archive</source>
<translation>Ein Archiv entpacken</translation></message>
<message><source>{0} and {1} differ only in letter case</source>
<translation>{0} und {1} unterscheiden sich nur in Groß- und Kleinschreibung</translation></message>
<message><source>index, {0=}</source>
<translation>Index, {0}</translation></message>
<message><source>Working out an archive</source>
<translation>Ein Archiv ergründen</translation></message>
<message><source>the whole file is packed: only what is before the packing is coloured here</source>
<translation>die ganze Datei ist gepackt: hier ist nur gefärbt, was vor dem Packen kommt</translation></message>
<message><source>Reading bare data</source>
<translation>Nackte Daten lesen</translation></message>
<message><source>Writing bare data</source>
<translation>Nackte Daten schreiben</translation></message>
<message><source>The layout describes something else there, or the archive is damaged</source>
<translation>Das Layout beschreibt dort etwas anderes, oder das Archiv ist beschädigt</translation></message>
<message><source>pixel format</source>
<translation>Pixelformat</translation></message>
<message><source>{0} × {1} pixels in {2} with {3} levels are {4} bytes</source>
<translation>{0} × {1} Pixel in {2} mit {3} Stufen sind {4} Bytes</translation></message>
<message><source>sample format</source>
<translation>Sample-Format</translation></message>
<message><source>its {0} is {1}</source>
<translation>{0} ist {1}</translation></message>
<message><source>{0}, and there are {1}</source>
<translation>{0}, und es sind {1} da</translation></message>
<message><source>its {0} is {1}, and the layout does not say what that is</source>
<translation>{0} ist {1}, und das Layout sagt nicht, was das heißt</translation></message>
<message><source>Add it to [[raw]] {0}</source>
<translation>Ergänze es in [[raw]] {0}</translation></message>
<message><source>{0} × {1} pixels and their palette are {2} bytes, and there are {3}</source>
<translation>{0} × {1} Pixel und ihre Palette sind {2} Bytes, und es sind {3} da</translation></message>
<message><source>it has colour {0}, and its palette {1}</source>
<translation>es hat die Farbe {0}, und seine Palette {1}</translation></message>
<message><source>{0} frames are {1} bytes, and there are {2}</source>
<translation>{0} Frames sind {1} Bytes, und es sind {2} da</translation></message>
<message><source>this archive could not tell what it is: it would be read as something else</source>
<translation>dieses Archiv könnte nicht sagen, was es ist: es würde als etwas anderes gelesen</translation></message>
<message><source>Give it the size, the format and the rate of the one that it replaces</source>
<translation>Gib ihm Größe, Format und Rate dessen, was es ersetzt</translation></message>
<message><source>it is {0} in {1}{2}; such pictures are {3}</source>
<translation>es ist {0} in {1}{2}; solche Bilder sind {3}</translation></message>
<message><source>Fit it: the result is a DDS file in the original's format</source>
<translation>Pass es an: das Ergebnis ist eine DDS-Datei im Format des Originals</translation></message>
<message><source>it is no WAV file</source>
<translation>es ist keine WAV-Datei</translation></message>
<message><source>Fit it: the result is a WAV file</source>
<translation>Pass es an: das Ergebnis ist eine WAV-Datei</translation></message>
<message><source>its samples have {0} bits{1}; such sounds are {2}</source>
<translation>seine Samples haben {0} Bit{1}; solche Geräusche sind {2}</translation></message>
<message><source>Fit it: the result has the original's format</source>
<translation>Pass es an: das Ergebnis hat das Format des Originals</translation></message>
<message><source> as floats</source>
<translation> als Gleitkommazahlen</translation></message>
<message><source>Reading an archive</source>
<translation>Ein Archiv lesen</translation></message>
<message><source>first entry</source>
<translation>erster Eintrag</translation></message>
<message><source>entry {0} is in no bucket</source>
<translation>Eintrag {0} ist in keinem Fach</translation></message>
<message><source>its entries do not stand in the order of their buckets</source>
<translation>seine Einträge stehen nicht in der Reihenfolge ihrer Fächer</translation></message>
<message><source>what its buckets say is not what the names make of them</source>
<translation>was seine Fächer sagen, ist nicht, was die Namen aus ihnen machen</translation></message>
<message><source>its hash table is not as the layout says: {0}</source>
<translation>seine Hashtabelle ist nicht so, wie das Layout sagt: {0}</translation></message>
<message><source>Say in [buckets] and [names] hash how the game finds entries; replacing them works without</source>
<translation>Sag in [buckets] und [names] hash, wie das Spiel Einträge findet; Ersetzen geht auch ohne</translation></message>
<message><source>its hash table has {0} buckets</source>
<translation>seine Hashtabelle hat {0} Fächer</translation></message>
<message><source>The layout describes something else there; for new archives, a field's new number says how many there are</source>
<translation>Das Layout beschreibt dort etwas anderes; für neue Archive sagt das new einer Feldzahl, wie viele es sind</translation></message>
<message><source>a name would be in bucket {0}, and there are {1}</source>
<translation>ein Name käme in Fach {0}, und es gibt {1}</translation></message>
<message><source>its index has {0} slots, and there would be {1} entries</source>
<translation>sein Index hat {0} Plätze, und es wären {1} Einträge</translation></message>
<message><source>Nothing more can be added to this archive: replace entries, or remove others</source>
<translation>Diesem Archiv lässt sich nichts mehr hinzufügen: ersetze Einträge oder entferne andere</translation></message>
<message><source>next entry</source>
<translation>nächster Eintrag</translation></message>
<message><source>entry {0} is met twice</source>
<translation>Eintrag {0} kommt zweimal vor</translation></message>
<message><source>the entry in slot {0} would not be found</source>
<translation>der Eintrag auf Platz {0} würde nicht gefunden</translation></message>
<message><source>entry {0} is met in bucket {1}, and its name belongs into {2}</source>
<translation>Eintrag {0} liegt in Fach {1}, und sein Name gehört in {2}</translation></message>
<message><source>Carving a file</source>
<translation>Eine Datei durchsuchen</translation></message>
<message><source>Looking for known files</source>
<translation>Bekannte Dateien suchen</translation></message>
<message><source>Writing a carved file</source>
<translation>Eine durchsuchte Datei schreiben</translation></message>
<message><source>nobody knows how this file is built</source>
<translation>niemand weiß, wie diese Datei aufgebaut ist</translation></message>
<message><source>Only what was found can be replaced, in its place; describe the file with a layout to do more</source>
<translation>Nur was gefunden wurde, lässt sich an seinem Platz ersetzen; beschreibe die Datei mit einem Layout, um mehr zu tun</translation></message>
<message><source>it has room for {0} bytes and the new one has {1}</source>
<translation>dort ist Platz für {0} Bytes, und das neue hat {1}</translation></message>
<message><source>Make it smaller: the same size and format, fewer levels, a lower rate</source>
<translation>Mach es kleiner: gleiche Größe und gleiches Format, weniger Stufen, eine niedrigere Rate</translation></message>
<message><source>stored size</source>
<translation>gepackte Größe</translation></message>
<message><source>the layout has no chain</source>
<translation>das Layout hat keine Kette</translation></message>
<message><source>name hash</source>
<translation>Namens-Hash</translation></message>
<message><source>the path {0} occurs twice</source>
<translation>der Pfad {0} kommt zweimal vor</translation></message>
<message><source>data offset</source>
<translation>Ort der Daten</translation></message>
<message><source>data size</source>
<translation>Größe der Daten</translation></message>
<message><source>{0=}, byte {1=}</source>
<translation>{0}, Byte {1}</translation></message>
<message><source>entry {0}</source>
<translation>Eintrag {0}</translation></message>
<message><source>its nests are more than {0} deep</source>
<translation>seine Nester sind mehr als {0} tief</translation></message>
<message><source>the chunk {0} should end at byte {1}, past the {2} there are</source>
<translation>der Abschnitt {0} müsste bei Byte {1} enden, hinter den {2}, die es gibt</translation></message>
<message><source>The archive is cut short or described by the wrong layout</source>
<translation>Das Archiv ist abgeschnitten oder mit dem falschen Layout beschrieben</translation></message>
<message><source>a {0} has {1} names, not one</source>
<translation>ein {0} hat {1} Namen, nicht einen</translation></message>
<message><source>entry count</source>
<translation>Zahl der Einträge</translation></message>
<message><source>file size</source>
<translation>Größe der Datei</translation></message>
<message><source>Writing {0=}</source>
<translation>{0} wird geschrieben</translation></message>
<message><source>such nests are in others, whose names begin with {0}</source>
<translation>solche Nester sind in anderen, deren Namen mit {0} beginnen</translation></message>
<message><source>Add it to a nest that is there</source>
<translation>Leg es in ein Nest, das es schon gibt</translation></message>
<message><source>its name is that of a chunk around it, which has others in it</source>
<translation>sein Name ist der eines Abschnitts um ihn herum, in dem andere liegen</translation></message>
<message><source>Rename all that belong together in the same way</source>
<translation>Benenne alle, die zusammengehören, auf dieselbe Weise um</translation></message>
<message><source>what this archive has lies in chunks in chunks, and none is there to put it beside</source>
<translation>was dieses Archiv hat, liegt in Abschnitten in Abschnitten, und keiner ist da, neben den es käme</translation></message>
<message><source>Add something of a kind that the archive has, called like it</source>
<translation>Füge etwas von einer Art hinzu, die das Archiv hat, und nenne es ebenso</translation></message>
<message><source>entries have the tags {0}, and none is named like it</source>
<translation>Einträge haben die Kennungen {0}, und keiner heißt so</translation></message>
<message><source>Give it the ending of an entry of its kind</source>
<translation>Gib ihm die Endung eines Eintrags seiner Art</translation></message>
<message><source>file sum</source>
<translation>Summe der Datei</translation></message>
<message><source>the layout has no place for such a name</source>
<translation>das Layout hat für einen solchen Namen keinen Platz</translation></message>
<message><source>Name it like {0}</source>
<translation>Nenne es wie {0}</translation></message>
<message><source>it has to be named {0}</source>
<translation>es muss {0} heißen</translation></message>
<message><source>Entries are numbered</source>
<translation>Einträge sind nummeriert</translation></message>
<message><source>this archive's entries are named by their place, not one by one</source>
<translation>die Einträge dieses Archivs haben Namen nach ihrem Platz, nicht einzeln</translation></message>
<message><source>Take it out and add it under the other name</source>
<translation>Nimm es heraus und füge es unter dem anderen Namen hinzu</translation></message>
<message><source>Zs</source>
<translation>Zs</translation></message>
<message><source>Co</source>
<translation>Co</translation></message>
<message><source>it is empty or longer than any file's</source>
<translation>er ist leer oder länger als der irgendeiner Datei</translation></message>
<message><source>Reading an entry</source>
<translation>Einen Eintrag lesen</translation></message>
<message><source>it has an empty part, '.' or '..'</source>
<translation>er hat einen leeren Teil, '.' oder '..'</translation></message>
<message><source>Reading an archive's index</source>
<translation>Den Index eines Archivs lesen</translation></message>
<message><source>there is no entry {0}</source>
<translation>einen Eintrag {0} gibt es nicht</translation></message>
<message><source>Names are case-sensitive: copy the inner path from the entry itself</source>
<translation>Groß- und Kleinschreibung zählen: kopiere den inneren Pfad vom Eintrag selbst</translation></message>
<message><source>it has characters that no inner path has</source>
<translation>er hat Zeichen, die kein innerer Pfad hat</translation></message>
<message><source>{0}, entry {1}</source>
<translation>{0}, Eintrag {1}</translation></message>
<message><source>the entry's path is not safe to write: {0}</source>
<translation>der Pfad des Eintrags lässt sich nicht gefahrlos schreiben: {0}</translation></message>
<message><source>The archive is damaged, made to do harm, or described by the wrong layout</source>
<translation>Das Archiv ist beschädigt, böswillig gemacht oder mit dem falschen Layout beschrieben</translation></message>
<message><source>Changing an archive</source>
<translation>Ein Archiv ändern</translation></message>
<message><source>there would be two entries {0}</source>
<translation>es gäbe zwei Einträge {0}</translation></message>
<message><source>Replace the one that is there, or choose another name</source>
<translation>Ersetze den, den es gibt, oder wähle einen anderen Namen</translation></message>
<message><source>stored sum</source>
<translation>gepackte Summe</translation></message>
<message><source>its packing is {0}, and the layout does not say what that is</source>
<translation>sein Packverfahren ist {0}, und das Layout sagt nicht, was das heißt</translation></message>
<message><source>Add it to [entry] packings</source>
<translation>Ergänze es in [entry] packings</translation></message>
<message><source>its {0} is not the one that the archive says</source>
<translation>{0} ist nicht das, was das Archiv sagt</translation></message>
<message><source>The archive is damaged: take a fresh copy of it</source>
<translation>Das Archiv ist beschädigt: hol eine frische Kopie</translation></message>
<message><source>What {0=} is made of</source>
<translation>Woraus {0} besteht</translation></message>
<message><source>such entries are bare data in this archive</source>
<translation>solche Einträge sind in diesem Archiv nackte Daten</translation></message>
<message><source>Call it {0}{1}</source>
<translation>Nenne es {0}{1}</translation></message>
<message><source>Changing a file</source>
<translation>Eine Datei ändern</translation></message>
<message><source>its size or its format stands in the archive's index, and a loose file cannot tell another one</source>
<translation>Größe oder Format steht im Index des Archivs, und eine lose Datei kann kein anderes nennen</translation></message>
<message><source>Give it the original's size and format, or let mods be rebuilt archives (goes = "rebuilt")</source>
<translation>Gib ihm Größe und Format des Originals, oder lass Mods neu gepackte Archive sein (goes = "rebuilt")</translation></message>
<message><source>it is one picture or sound, not an archive</source>
<translation>es ist ein einzelnes Bild oder Geräusch, kein Archiv</translation></message>
<message><source>Its content can be replaced; nothing can be added, removed or renamed in it</source>
<translation>Sein Inhalt lässt sich ersetzen; hinzufügen, entfernen oder umbenennen lässt sich darin nichts</translation></message>
<message><source>Working out an expression</source>
<translation>Einen Ausdruck ausrechnen</translation></message>
<message><source>it shifts by less than 0 or more than 62 bits</source>
<translation>er verschiebt um weniger als 0 oder mehr als 62 Bit</translation></message>
<message><source>it divides by zero</source>
<translation>er teilt durch null</translation></message>
<message><source>its numbers grow beyond 64 bits</source>
<translation>seine Zahlen werden größer als 64 Bit</translation></message>
<message><source>no number can be stored there that means {0}</source>
<translation>keine Zahl lässt sich dort speichern, die {0} bedeutet</translation></message>
<message><source>Set [entry] align to the size of the archive's units, or write the expression as a straight line</source>
<translation>Setze [entry] align auf die Größe der Einheiten des Archivs, oder schreib den Ausdruck als gerade Linie</translation></message>
<message><source>it is too long</source>
<translation>er ist zu lang</translation></message>
<message><source>Reading an expression</source>
<translation>Einen Ausdruck lesen</translation></message>
<message><source>{0=} is not a whole number</source>
<translation>{0} ist keine ganze Zahl</translation></message>
<message><source>Use whole numbers, field names, + - * // % &lt;&lt; &gt;&gt; &amp; | ^, comparisons, and, or, not, align(x, n), min, max</source>
<translation>Nimm ganze Zahlen, Feldnamen, + - * // % &lt;&lt; &gt;&gt; &amp; | ^, Vergleiche, and, or, not, align(x, n), min, max</translation></message>
<message><source>{0=}(…) is not known, or takes another number of values</source>
<translation>{0}(…) ist nicht bekannt oder nimmt eine andere Zahl von Werten</translation></message>
<message><source>there is no field {0} before it</source>
<translation>davor gibt es kein Feld {0}</translation></message>
<message><source>What is known there: {0}</source>
<translation>Dort bekannt: {0}</translation></message>
<message><source>only + - * // % &lt;&lt; &gt;&gt; &amp; | ^ are known</source>
<translation>bekannt sind nur + - * // % &lt;&lt; &gt;&gt; &amp; | ^</translation></message>
<message><source>{0} is not known</source>
<translation>{0} ist nicht bekannt</translation></message>
<message><source>folder count</source>
<translation>Zahl der Ordner</translation></message>
<message><source>index offset</source>
<translation>Ort des Index</translation></message>
<message><source>index size</source>
<translation>Größe des Index</translation></message>
<message><source>index stored size</source>
<translation>gepackte Größe des Index</translation></message>
<message><source>index sum</source>
<translation>Summe des Index</translation></message>
<message><source>names offset</source>
<translation>Ort der Namen</translation></message>
<message><source>names size</source>
<translation>Größe der Namen</translation></message>
<message><source>name offset</source>
<translation>Ort des Namens</translation></message>
<message><source>first folder</source>
<translation>erster Ordner</translation></message>
<message><source>next folder</source>
<translation>nächster Ordner</translation></message>
<message><source>two fields are called {0}</source>
<translation>zwei Felder heißen {0}</translation></message>
<message><source>two fields hold the {0}</source>
<translation>zwei Felder halten: {0}</translation></message>
<message><source>a field of the {0} cannot hold the {1}</source>
<translation>ein Feld von {0} kann das nicht halten: {1}</translation></message>
<message><source>a text field needs a length, or ends = "zero", "u8", "u16" or "u32"</source>
<translation>ein Textfeld braucht eine Länge oder ends = "zero", "u8", "u16" oder "u32"</translation></message>
<message><source>a field of type {0} needs a length</source>
<translation>ein Feld der Art {0} braucht eine Länge</translation></message>
<message><source>a field of digits needs a length: how many there are</source>
<translation>ein Feld aus Ziffern braucht eine Länge: wie viele es sind</translation></message>
<message><source>a number has no length of its own</source>
<translation>eine Zahl hat keine eigene Länge</translation></message>
<message><source>bits, means and stores belong to numbers</source>
<translation>bits, means und stores gehören zu Zahlen</translation></message>
<message><source>a field that holds a sum says which: sum = one of {0}</source>
<translation>ein Feld, das eine Summe hält, sagt welche: sum = eins von {0}</translation></message>
<message><source>a {0} has {1} bytes</source>
<translation>ein {0} hat {1} Bytes</translation></message>
<message><source>the bits {0=} end at bit {1}, and a {2} has {3}</source>
<translation>die Bits {0} enden bei Bit {1}, und ein {2} hat {3}</translation></message>
<message><source>Copying {0=}</source>
<translation>{0} wird kopiert</translation></message>
<message><source>Reading a file</source>
<translation>Eine Datei lesen</translation></message>
<message><source>folder {0}</source>
<translation>Ordner {0}</translation></message>
<message><source>nothing tells how many folders there are</source>
<translation>nichts sagt, wie viele Ordner es gibt</translation></message>
<message><source>A field holds the folder count</source>
<translation>Ein Feld hält die Zahl der Ordner</translation></message>
<message><source>Without path-is = "ending" they are folders</source>
<translation>Ohne path-is = "ending" sind es Ordner</translation></message>
<message><source>entry {0} is in no folder</source>
<translation>Eintrag {0} ist in keinem Ordner</translation></message>
<message><source>its groups have no endings that tell them apart</source>
<translation>seine Gruppen haben keine Endungen, die sie unterscheiden</translation></message>
<message><source>{0} is the ending of no name</source>
<translation>{0} ist die Endung keines Namens</translation></message>
<message><source>entry {0} is in folder {1}, and there are {2}</source>
<translation>Eintrag {0} ist in Ordner {1}, und es gibt {2}</translation></message>
<message><source>folder {0} has entries {1} to {2}, and there are {3}</source>
<translation>Ordner {0} hat die Einträge {1} bis {2}, und es gibt {3}</translation></message>
<message><source>its folders are more than {0} deep</source>
<translation>seine Ordner liegen mehr als {0} tief</translation></message>
<message><source>its folders are more than {0} deep, or in a circle</source>
<translation>seine Ordner sind mehr als {0} tief oder laufen im Kreis</translation></message>
<message><source>Packing a file</source>
<translation>Eine Datei packen</translation></message>
<message><source>where the data lies</source>
<translation>wo die Daten liegen</translation></message>
<message><source>stored sizes</source>
<translation>gepackte Größen</translation></message>
<message><source>Zstandard</source>
<translation>Zstandard</translation></message>
<message><source>The guess finds {0} of the {1} things whose places are known</source>
<translation>Die Vermutung findet {0} von {1} Dingen, deren Ort bekannt ist</translation></message>
<message><source>It begins with “{0}”: a signature</source>
<translation>Es beginnt mit „{0}“: eine Signatur</translation></message>
<message><source>{0} whole {1} {2} stored as they are</source>
<translation>{0} ganze {1}-{2}, ungepackt gespeichert</translation></message>
<message><source>{0} names of the same room, a record every {1} bytes: an index</source>
<translation>{0} Namen von gleichem Platz, ein Datensatz alle {1} Bytes: ein Index</translation></message>
<message><source>The number {0} bytes into each record fits {1}</source>
<translation>Die Zahl {0} Bytes in jedem Datensatz passt zu: {1}</translation></message>
<message><source>A number that is the count of entries</source>
<translation>Eine Zahl, die die Anzahl der Einträge ist</translation></message>
<message><source>Under the mask 0x{0} (exclusive-or) lie {1} known files</source>
<translation>Unter der Maske 0x{0} (exklusiv-oder) liegen {1} bekannte Dateien</translation></message>
<message><source>{0} where {1} data unpacks</source>
<translation>{0}, an denen sich {1}-Daten entpacken lassen</translation></message>
<message><source>{0} names one after the other: a name table, or names inside records</source>
<translation>{0} Namen hintereinander: eine Namenstabelle oder Namen in Datensätzen</translation></message>
<message><source>{n} place</source>
<translation>{n} Stelle</translation></message>
<message><source>{n} places</source>
<translation>{n} Stellen</translation></message>
<message><source>Names of {0} letters would follow each other evenly; the field “{1=}” has {2}</source>
<translation>Namen mit {0} Buchstaben folgten gleichmäßig aufeinander; das Feld „{1}“ hat {2}</translation></message>
<message><source>No field holds the entry count (or the index size), so that records were read up to the end of the file</source>
<translation>Kein Feld hält die Zahl der Einträge (oder die Größe des Index), so wurden Datensätze bis zum Ende der Datei gelesen</translation></message>
<message><source>the checksums {0}</source>
<translation>die Prüfsummen {0}</translation></message>
<message><source>One of the two files is damaged or from another version: take fresh copies of both</source>
<translation>Eine der beiden Dateien ist beschädigt oder aus einer anderen Version: hol frische Kopien von beiden</translation></message>
<message><source>Checking the archive</source>
<translation>Das Archiv prüfen</translation></message>
<message><source>are not as many as the entries of the archive beside it</source>
<translation>sind nicht so viele wie die Einträge des Archivs daneben</translation></message>
<message><source>the layout has no index</source>
<translation>das Layout hat keinen Index</translation></message>
<message><source>others are packed with this dictionary</source>
<translation>andere sind mit diesem Wörterbuch gepackt</translation></message>
<message><source>Leave it as it is: without it they could not be read</source>
<translation>Lass es, wie es ist: ohne es ließen sie sich nicht lesen</translation></message>
<message><source>it runs over the file's end</source>
<translation>es reicht über das Ende der Datei hinaus</translation></message>
<message><source>do not match the archive beside it</source>
<translation>stimmen nicht mit dem Archiv daneben überein</translation></message>
<message><source>Reading a layout</source>
<translation>Ein Layout lesen</translation></message>
<message><source>{0} {1} is led to twice, or in a circle</source>
<translation>zu {0} {1} führen zwei Wege, oder es geht im Kreis</translation></message>
<message><source>The archive is damaged or described by the wrong layout</source>
<translation>Das Archiv ist beschädigt oder mit dem falschen Layout beschrieben</translation></message>
<message><source>folder {0} leads to {1} {2}, and there are {3}</source>
<translation>Ordner {0} führt zu {1} {2}, und es gibt {3}</translation></message>
<message><source>The archive is damaged or described by the wrong layout: free is the number that ends a row</source>
<translation>Das Archiv ist beschädigt oder mit dem falschen Layout beschrieben: free ist die Zahl, die eine Reihe beendet</translation></message>
<message><source>a packed file</source>
<translation>eine gepackte Datei</translation></message>
<message><source>it is one packed file, and not an archive of several</source>
<translation>es ist eine einzige gepackte Datei und kein Archiv aus mehreren</translation></message>
<message><source>Replace the file, or make a ZIP or TAR of several</source>
<translation>Ersetze die Datei, oder mach ein ZIP oder TAR aus mehreren</translation></message>
<message><source>another program is writing it anew</source>
<translation>ein anderes Programm schreibt es neu</translation></message>
<message><source>Wait until that is done, then open the game again</source>
<translation>Warte, bis das fertig ist, und öffne das Spiel noch einmal</translation></message>
<message><source>nothing is written beside it that ends in {0}</source>
<translation>daneben wird nichts geschrieben, das auf {0} endet</translation></message>
<message><source>there is no {0} beside it</source>
<translation>daneben gibt es kein {0}</translation></message>
<message><source>{0} is no ending</source>
<translation>{0} ist keine Endung</translation></message>
<message><source>Describing bytes</source>
<translation>Bytes beschreiben</translation></message>
<message><source>bytes {0} to {1}</source>
<translation>Bytes {0} bis {1}</translation></message>
<message><source>{0} bytes are no number</source>
<translation>{0} Bytes sind keine Zahl</translation></message>
<message><source>Numbers have 1, 2, 3, 4 or 8 bytes</source>
<translation>Zahlen haben 1, 2, 3, 4 oder 8 Bytes</translation></message>
<message><source>its name table would not be the same although nobody changed a name</source>
<translation>seine Namenstabelle wäre nicht dieselbe, obwohl niemand einen Namen geändert hat</translation></message>
<message><source>Say in [names] how names are written: it cannot be written anew without a loss</source>
<translation>Sag in [names], wie Namen geschrieben werden: neu geschrieben ginge sonst etwas verloren</translation></message>
<message><source>names have to be shorter than {0} bytes</source>
<translation>Namen müssen kürzer als {0} Bytes sein</translation></message>
<message><source>as they are</source>
<translation>wie sie sind</translation></message>
<message><source>one of [[packers]]</source>
<translation>eins von [[packers]]</translation></message>
<message><source>{0=} depends on what stands before a letter: use utf-8, utf-16-le, shift-jis, cp1252 …</source>
<translation>{0} hängt davon ab, was vor einem Buchstaben steht: nimm utf-8, utf-16-le, shift-jis, cp1252 …</translation></message>
<message><source>Reckoning a hash</source>
<translation>Einen Hash rechnen</translation></message>
<message><source>{0=} is no character encoding that Python knows</source>
<translation>{0} ist keine Zeichenkodierung, die Python kennt</translation></message>
<message><source>{0} knows {1}, and no {2}</source>
<translation>{0} kennt {1} und kein {2}</translation></message>
<message><source>it has to be made of the hash or the letters, with no comparison in it</source>
<translation>er muss aus dem Hash oder den Buchstaben gemacht sein, ohne einen Vergleich darin</translation></message>
<message><source>Write it with + - * &lt;&lt; &gt;&gt; &amp; | ^, or as a if b else c</source>
<translation>Schreib ihn mit + - * &lt;&lt; &gt;&gt; &amp; | ^ oder als a if b else c</translation></message>
<message><source>the name {0} does not begin with {1}</source>
<translation>der Name {0} beginnt nicht mit {1}</translation></message>
<message><source>[names] drop is for what stands before every name</source>
<translation>[names] drop ist für das, was vor jedem Namen steht</translation></message>
<message><source>{0} cannot be written in {1}</source>
<translation>{0} lässt sich nicht in {1} schreiben</translation></message>
<message><source>Use a name without it</source>
<translation>Nimm einen Namen ohne das</translation></message>
<message><source>a name in its index is not {0}</source>
<translation>ein Name in seinem Index ist nicht {0}</translation></message>
<message><source>{0} is in another archive</source>
<translation>{0} ist in einem anderen Archiv</translation></message>
<message><source>Remove it here and add it there</source>
<translation>Entferne es hier und füge es dort hinzu</translation></message>
<message><source>Choosing a layout</source>
<translation>Ein Layout wählen</translation></message>
<message><source>there is no such layout</source>
<translation>ein solches Layout gibt es nicht</translation></message>
<message><source>Use {0}, or a layout's .toml file</source>
<translation>Nimm {0} oder die .toml-Datei eines Layouts</translation></message>
<message><source>Use zip or tar</source>
<translation>Nimm zip oder tar</translation></message>
<message><source>it is one packed file</source>
<translation>es ist eine einzelne gepackte Datei</translation></message>
<message><source>such archives are read and not written</source>
<translation>solche Archive werden gelesen und nicht geschrieben</translation></message>
<message><source>it is not sorted by the {0}, as the layout says</source>
<translation>es ist nicht nach {0} sortiert, wie das Layout sagt</translation></message>
<message><source>Leave sorted-by out, or say how names are spelled and hashed: sorted anew it would not be found in</source>
<translation>Lass sorted-by weg, oder sag, wie Namen geschrieben und gehasht werden: neu sortiert würde darin nichts gefunden</translation></message>
<message><source>low first</source>
<translation>niedriges zuerst</translation></message>
<message><source>in the window</source>
<translation>im Fenster</translation></message>
<message><source>high first</source>
<translation>hohes zuerst</translation></message>
<message><source>{0=} is a packing that is known already: choose another name</source>
<translation>{0} ist ein schon bekanntes Packverfahren: wähle einen anderen Namen</translation></message>
<message><source>a packing of the kind dictionary, and no other, says which entry the dictionary is</source>
<translation>ein Packverfahren der Art dictionary, und kein anderes, sagt, welcher Eintrag das Wörterbuch ist</translation></message>
<message><source>begin is a place in the window</source>
<translation>begin ist ein Ort im Fenster</translation></message>
<message><source>place and length have bits of the pair, each of them once</source>
<translation>place und length haben Bits des Paars, jedes davon einmal</translation></message>
<message><source>a place has at most 30 bits, a length 16</source>
<translation>ein Ort hat höchstens 30 Bit, eine Länge 16</translation></message>
<message><source>skip is the last code of the runs, or the one before the mark</source>
<translation>skip ist der letzte Code der Läufe oder der vor der Marke</translation></message>
<message><source>its blocks run over its end</source>
<translation>seine Blöcke reichen über sein Ende hinaus</translation></message>
<message><source>Unpacking</source>
<translation>Entpacken</translation></message>
<message><source>block {0} unpacks to another size</source>
<translation>Block {0} entpackt sich zu einer anderen Größe</translation></message>
<message><source>its dictionary {0} is not known yet</source>
<translation>sein Wörterbuch {0} ist noch nicht bekannt</translation></message>
<message><source>The dictionary and the index itself are packed otherwise, or not at all</source>
<translation>Das Wörterbuch und der Index selbst sind anders gepackt oder gar nicht</translation></message>
<message><source>the dictionary is empty</source>
<translation>das Wörterbuch ist leer</translation></message>
<message><source>no frame begins there</source>
<translation>dort beginnt kein Rahmen</translation></message>
<message><source>the {0=} data is damaged ({1})</source>
<translation>die {0}-Daten sind beschädigt ({1})</translation></message>
<message><source>the stream ends too soon</source>
<translation>der Strom endet zu früh</translation></message>
<message><source>the frame ends too soon</source>
<translation>der Rahmen endet zu früh</translation></message>
<message><source>{0} stored bytes cannot hold the {1} that its index says</source>
<translation>{0} gepackte Bytes können die {1} nicht halten, die ihr Index nennt</translation></message>
<message><source>it unpacks to another size than the {0} bytes of its index</source>
<translation>es entpackt sich zu einer anderen Größe als den {0} Bytes seines Index</translation></message>
<message><source>{0=} blocks do not say their size and neither does the index</source>
<translation>{0}-Blöcke nennen ihre Größe nicht, und der Index auch nicht</translation></message>
<message><source>Give the layout a field that holds the size</source>
<translation>Gib dem Layout ein Feld, das die Größe hält</translation></message>
<message><source>it unpacks to more than {0} bytes</source>
<translation>es entpackt sich zu mehr als {0} Bytes</translation></message>
<message><source>it has {0} colours, and its palette holds {1}</source>
<translation>es hat {0} Farben, und seine Palette fasst {1}</translation></message>
<message><source>{0} of its {1} colours are not in {2}, the palette of all such pictures</source>
<translation>{0} seiner {1} Farben sind nicht in {2}, der Palette aller solchen Bilder</translation></message>
<message><source>its channels have more than 8 bits</source>
<translation>seine Kanäle haben mehr als 8 Bit</translation></message>
<message><source>Fit it: the result is a TGA file with a palette</source>
<translation>Pass es an: das Ergebnis ist eine TGA-Datei mit Palette</translation></message>
<message><source>Fit it with the step Few colours</source>
<translation>Pass es mit dem Schritt Wenige Farben an</translation></message>
<message><source>colour {0} is none of the {1}</source>
<translation>Farbe {0} ist keine der {1}</translation></message>
<message><source>its palette has {0} bytes, and {1} colours need {2}</source>
<translation>seine Palette hat {0} Bytes, und {1} Farben brauchen {2}</translation></message>
<message><source>Say in the layout where the palette is and how many colours it has</source>
<translation>Sag im Layout, wo die Palette ist und wie viele Farben sie hat</translation></message>
<message><source>it is transparent, and no colour of the palette is</source>
<translation>es ist durchsichtig, und keine Farbe der Palette ist das</translation></message>
<message><source>Bring its colours to the original's (step Few colours)</source>
<translation>Bring seine Farben auf die des Originals (Schritt Wenige Farben)</translation></message>
<message><source>an index has no room for more, and no field tells where it lies</source>
<translation>ein Index hat für mehr keinen Platz, und kein Feld sagt, wo er liegt</translation></message>
<message><source>Say which field holds its "index offset", or replace entries and add none</source>
<translation>Sag, welches Feld seinen "index offset" hält, oder ersetze Einträge und füge keine hinzu</translation></message>
<message><source>its index does not settle on a size</source>
<translation>sein Index kommt zu keiner festen Größe</translation></message>
<message><source>{0} bytes lie between its index and its names, and the layout does not say what</source>
<translation>{0} Bytes liegen zwischen Index und Namen, und das Layout sagt nicht was</translation></message>
<message><source>Describe what they are: they would be lost</source>
<translation>Beschreibe, was sie sind: sie gingen verloren</translation></message>
<message><source>Proving what was written</source>
<translation>Prüfen, was geschrieben wurde</translation></message>
<message><source>it would have {0} entries, not {1}</source>
<translation>es hätte {0} Einträge, nicht {1}</translation></message>
<message><source>an entry that nobody changed would be stored as something else</source>
<translation>ein Eintrag, den niemand geändert hat, würde als etwas anderes gespeichert</translation></message>
<message><source>{0} would not have the content that it was given</source>
<translation>{0} hätte nicht den Inhalt, der ihm gegeben wurde</translation></message>
<message><source>Nothing was written. The description of this kind of archive is to blame, not the disk: a field in it does not mean what it says, or one is missing (docs/layouts.md)</source>
<translation>Nichts wurde geschrieben. Schuld ist die Beschreibung dieser Art von Archiv, nicht die Platte: ein Feld darin bedeutet nicht, was es sagt, oder eins fehlt (docs/layouts.md)</translation></message>
<message><source>it cannot be read back: {0}</source>
<translation>es lässt sich nicht zurücklesen: {0}</translation></message>
<message><source>{0} would be gone</source>
<translation>{0} wäre fort</translation></message>
<message><source>{0} would be there, too</source>
<translation>{0} wäre auch da</translation></message>
<message><source>the archive's fields would not say of {0} what it is</source>
<translation>die Felder des Archivs würden von {0} nicht sagen, was es ist</translation></message>
<message><source>{0} would be stored as something else, and nobody changed it</source>
<translation>{0} würde als etwas anderes gespeichert, und niemand hat es geändert</translation></message>
<message><source>bare data has either pixels or samples</source>
<translation>nackte Daten haben entweder Pixel oder Samples</translation></message>
<message><source>a field of the record before bare data cannot hold the {0}</source>
<translation>ein Feld des Datensatzes vor nackten Daten kann das nicht halten: {0}</translation></message>
<message><source>pixels in P8 have a palette, and no others do</source>
<translation>Pixel in P8 haben eine Palette, andere nicht</translation></message>
<message><source>{0} lies in blocks: it has no rows that come from below or are padded</source>
<translation>{0} liegt in Blöcken: es hat keine Zeilen, die von unten kommen oder aufgefüllt sind</translation></message>
<message><source>pixels by number need a field that holds the pixel format</source>
<translation>Pixel nach Nummer brauchen ein Feld, das das Pixelformat hält</translation></message>
<message><source>samples by number need a field that holds the sample format</source>
<translation>Samples nach Nummer brauchen ein Feld, das das Sample-Format hält</translation></message>
<message><source>bare pixels need a field that holds the width, or a width that all have</source>
<translation>nackte Pixel brauchen ein Feld, das die Breite hält, oder eine Breite, die alle haben</translation></message>
<message><source>bare samples need a field that holds the rate, or a rate that all have</source>
<translation>nackte Samples brauchen ein Feld, das die Rate hält, oder eine Rate, die alle haben</translation></message>
<message><source>{0} have no {1}</source>
<translation>{0} haben kein {1}</translation></message>
<message><source>{0=}, index</source>
<translation>{0}, Index</translation></message>
<message><source>{0=}, names</source>
<translation>{0}, Namen</translation></message>
<message><source>index start</source>
<translation>Anfang des Index</translation></message>
<message><source>none of its {0} records is the last one ({1})</source>
<translation>keiner seiner {0} Datensätze ist der letzte ({1})</translation></message>
<message><source>neither zeros nor ones are a last record ({0})</source>
<translation>weder Nullen noch Einsen sind ein letzter Datensatz ({0})</translation></message>
<message><source>Change an archive that is there instead of making a new one</source>
<translation>Ändere ein Archiv, das es gibt, statt ein neues zu machen</translation></message>
<message><source>its index should lie at bytes {0=} to {1} and the file ends at {2}</source>
<translation>sein Index müsste bei den Bytes {0} bis {1} liegen, und die Datei endet bei {2}</translation></message>
<message><source>they should lie at byte {0=}, outside the file</source>
<translation>sie müssten bei Byte {0} liegen, außerhalb der Datei</translation></message>
<message><source>the field that holds the {0} is not a number</source>
<translation>das Feld für {0} ist keine Zahl</translation></message>
<message><source>entry {0} is in volume {1}, and there are {2}, from {3} on</source>
<translation>Eintrag {0} ist in Band {1}, und es gibt {2}, ab {3}</translation></message>
<message><source>A volume is missing, or the layout is the wrong one</source>
<translation>Ein Band fehlt, oder es ist das falsche Layout</translation></message>
<message><source>entry {0} runs over the end of its volume</source>
<translation>Eintrag {0} reicht über das Ende seines Bands hinaus</translation></message>
<message><source>a name should lie at byte {0=} of the name table, outside it</source>
<translation>ein Name müsste bei Byte {0} der Namenstabelle liegen, außerhalb von ihr</translation></message>
<message><source>the name at byte {0=} of the name table runs over its end</source>
<translation>der Name bei Byte {0} der Namenstabelle reicht über ihr Ende hinaus</translation></message>
<message><source>it should lie at bytes {0} to {1}, outside the data that ends at {2}</source>
<translation>es müsste bei den Bytes {0} bis {1} liegen, außerhalb der Daten, die bei {2} enden</translation></message>
<message><source>its path occurs twice</source>
<translation>sein Pfad kommt zweimal vor</translation></message>
<message><source>its {0} is not the one that it carries</source>
<translation>{0} ist nicht das, was es selbst sagt</translation></message>
<message><source>its {0} is not the one that the file says</source>
<translation>{0} ist nicht das, was die Datei sagt</translation></message>
<message><source>Take a fresh copy of it</source>
<translation>Hol eine frische Kopie</translation></message>
<message><source>Reading {0}</source>
<translation>{0} wird gelesen</translation></message>
<message><source>an ISO image</source>
<translation>ein ISO-Abbild</translation></message>
<message><source>a 7z archive</source>
<translation>ein 7z-Archiv</translation></message>
<message><source>Reading a 7z archive</source>
<translation>Ein 7z-Archiv lesen</translation></message>
<message><source>it has a file twice</source>
<translation>es hat eine Datei zweimal</translation></message>
<message><source>it claims to be far too large</source>
<translation>es behauptet, viel zu groß zu sein</translation></message>
<message><source>{0} is read and not written</source>
<translation>{0} wird gelesen und nicht geschrieben</translation></message>
<message><source>Unpack it and pack the folder as a ZIP or TAR, or make a mod whose files lie loose</source>
<translation>Entpack es und pack den Ordner als ZIP oder TAR, oder mach eine Mod, deren Dateien lose liegen</translation></message>
<message><source>it is encrypted</source>
<translation>es ist verschlüsselt</translation></message>
<message><source>Unpack it with its password</source>
<translation>Entpack es mit seinem Passwort</translation></message>
<message><source>it claims to unpack to far more than it can</source>
<translation>es behauptet, sich zu viel mehr zu entpacken, als es kann</translation></message>
<message><source>it unpacks to another size than it says</source>
<translation>es entpackt sich zu einer anderen Größe, als es sagt</translation></message>
<message><source>it is damaged</source>
<translation>es ist beschädigt</translation></message>
<message><source>it has more than {0} records</source>
<translation>es hat mehr als {0} Einträge</translation></message>
<message><source>the field “{0=}” at byte {1=} is longer than 63 bits</source>
<translation>das Feld „{0}“ bei Byte {1} ist länger als 63 Bit</translation></message>
<message><source>the field “{0=}” lies at byte {1=} and the file ends at {2}</source>
<translation>das Feld „{0}“ liegt bei Byte {1}, und die Datei endet bei {2}</translation></message>
<message><source>{0=} does not fit into a {1}</source>
<translation>{0} passt nicht in ein {1}</translation></message>
<message><source>The archive's kind cannot hold that much: leave something out, or split it</source>
<translation>Diese Art von Archiv kann so viel nicht halten: lass etwas weg oder teile es</translation></message>
<message><source>the field “{0=}” has room for {1} bytes</source>
<translation>das Feld „{0}“ hat Platz für {1} Bytes</translation></message>
<message><source>Use a shorter name</source>
<translation>Nimm einen kürzeren Namen</translation></message>
<message><source>it has {0} records, and no more are read than {1}</source>
<translation>es hat {0} Einträge, und mehr als {1} werden nicht gelesen</translation></message>
<message><source>{0} does not fit into its {1} bits</source>
<translation>{0} passt nicht in seine {1} Bit</translation></message>
<message><source>the field “{0=}” at byte {1} is {2}, not {3=}</source>
<translation>das Feld „{0}“ bei Byte {1} ist {2}, nicht {3}</translation></message>
<message><source>It is another kind of archive, or damaged</source>
<translation>Es ist eine andere Art von Archiv oder beschädigt</translation></message>
<message><source>the field “{0=}” has {1}, which is no number in base {2}</source>
<translation>das Feld „{0}“ hat {1}, was zur Basis {2} keine Zahl ist</translation></message>
<message><source>{0} has {1}, and {2} would be stored</source>
<translation>{0} hat {1}, und {2} würde gespeichert</translation></message>
<message><source>{0}, field “{1=}”</source>
<translation>{0}, Feld „{1}“</translation></message>
<message><source>what it means cannot be turned back into its number: {0}</source>
<translation>was es bedeutet, lässt sich nicht in seine Zahl zurückrechnen: {0}</translation></message>
<message><source>The archive can be read, not written: describe flags as bits of the field, or as fields of their own</source>
<translation>Das Archiv lässt sich lesen, nicht schreiben: beschreibe Schalter als Bits des Felds oder als eigene Felder</translation></message>
<message><source>{0} bytes lie between its index and its data, and the layout does not say what</source>
<translation>{0} Bytes liegen zwischen Index und Daten, und das Layout sagt nicht was</translation></message>
<message><source>The index cannot become longer or shorter then: replace entries, and add or remove none</source>
<translation>Der Index kann dann nicht länger oder kürzer werden: ersetze Einträge, füge keine hinzu und entferne keine</translation></message>
<message><source>the places of {0} entries stand a second time in bytes that the layout does not describe</source>
<translation>die Orte von {0} Einträgen stehen ein zweites Mal in Bytes, die das Layout nicht beschreibt</translation></message>
<message><source>They would be wrong then. Describe that part of the archive, or put in only what has the same stored size</source>
<translation>Sie wären dann falsch. Beschreibe diesen Teil des Archivs, oder nimm nur auf, was dieselbe gepackte Größe hat</translation></message>
<message><source>its hash is {0}, and the hash of its name is {1}</source>
<translation>sein Hash ist {0}, und der Hash seines Namens ist {1}</translation></message>
<message><source>Say in [names] hash and letters how its hashes are made: without that nothing can be added or renamed</source>
<translation>Sag in [names] hash und letters, wie seine Hashes gemacht sind: ohne das lässt sich nichts hinzufügen oder umbenennen</translation></message>
<message><source>this archive tells no sizes, and its index could not tell where this entry ends</source>
<translation>dieses Archiv nennt keine Größen, und sein Index könnte nicht sagen, wo dieser Eintrag endet</translation></message>
<message><source>Leave out empty entries, or put them where their names come in the index</source>
<translation>Lass leere Einträge weg, oder leg sie dahin, wo ihre Namen im Index kommen</translation></message>
<message><source>{0=}, field “{1=}”</source>
<translation>{0}, Feld „{1}“</translation></message>
<message><source>it is {0}, and so is the {1}, which would be {2} then: it was not to be wrong</source>
<translation>es ist {0}, und das ist auch {1}, was dann {2} wäre: es sollte nicht falsch sein</translation></message>
<message><source>Say that it holds the {0} (holds = "{1}"), or that it is always {2} (is = {3})</source>
<translation>Sag, dass es {0} hält (holds = "{1}"), oder dass es immer {2} ist (is = {3})</translation></message>
<message><source>start or footer record</source>
<translation>Datensatz am Anfang oder Ende</translation></message>
<message><source>index's start</source>
<translation>Anfang des Index</translation></message>
<message><source>a mask has a key of bytes, or a value for each position</source>
<translation>eine Maske hat einen Schlüssel aus Bytes oder einen Wert für jede Stelle</translation></message>
<message><source>a layout has either an [index] or a [chain], or is a [single] file</source>
<translation>ein Layout hat entweder einen [index] oder eine [chain] oder ist eine [single]-Datei</translation></message>
<message><source>the footer is found from the file's end, so its fields need fixed lengths</source>
<translation>der Fuß wird vom Ende der Datei her gefunden, darum brauchen seine Felder feste Längen</translation></message>
<message><source>a zero byte ends no name in {0}: give it a length</source>
<translation>ein Nullbyte beendet in {0} keinen Namen: gib ihm eine Länge</translation></message>
<message><source>a zero byte ends no name in {0}: names in a table need a length before them</source>
<translation>ein Nullbyte beendet in {0} keinen Namen: Namen in einer Tabelle brauchen eine Länge davor</translation></message>
<message><source>names that share letters lie one after the other in a table, without fields that tell their places</source>
<translation>Namen, die sich Buchstaben teilen, liegen hintereinander in einer Tabelle, ohne Felder, die ihren Ort nennen</translation></message>
<message><source>a dictionary goes with one [index], and with packings of which one is none: it is not packed with itself</source>
<translation>ein Wörterbuch gehört zu einem einzigen [index] und zu Packverfahren, von denen eins none ist: es ist nicht mit sich selbst gepackt</translation></message>
<message><source>a field holds the packing: [entry] packings says which number means which</source>
<translation>ein Feld hält das Packverfahren: [entry] packings sagt, welche Zahl welches meint</translation></message>
<message><source>folders go with an index that has names, and is neither sorted nor has empty or last records</source>
<translation>Ordner gehören zu einem Index, der Namen hat und weder sortiert ist noch leere oder letzte Datensätze hat</translation></message>
<message><source>where there are folders names have no part to drop</source>
<translation>wo es Ordner gibt, haben Namen keinen Teil, der wegfällt</translation></message>
<message><source>either entries tell their folder, or folders tell how many entries they have, or entries tell the next one</source>
<translation>entweder nennen Einträge ihren Ordner, oder Ordner sagen, wie viele Einträge sie haben, oder Einträge nennen den nächsten</translation></message>
<message><source>where entries tell the next one, folders tell the first, and free is the number that ends them</source>
<translation>wo Einträge den nächsten nennen, nennen Ordner den ersten, und free ist die Zahl, die sie beendet</translation></message>
<message><source>in a tree names are fields, or their places in a name table are told</source>
<translation>in einem Baum sind Namen Felder, oder ihre Orte in einer Namenstabelle werden genannt</translation></message>
<message><source>buckets go with an index of named entries that is not sorted without a last record and folders</source>
<translation>Fächer gehören zu einem Index benannter Einträge, der nicht sortiert ist und ohne letzten Datensatz und Ordner</translation></message>
<message><source>buckets are of hashes of the names: [names] hash says which one</source>
<translation>Fächer sind aus Hashes der Namen: [names] hash sagt, aus welchem</translation></message>
<message><source>an index that has a table of buckets has no empty records</source>
<translation>ein Index mit einer Tabelle von Fächern hat keine leeren Datensätze</translation></message>
<message><source>[index] empty says which slots are free, or [buckets] fields what each bucket tells</source>
<translation>[index] empty sagt, welche Plätze frei sind, oder [buckets] fields, was jedes Fach nennt</translation></message>
<message><source>entries that tell the next one need a table of buckets, and the number that is free in it</source>
<translation>Einträge, die den nächsten nennen, brauchen eine Tabelle von Fächern und die Zahl, die darin frei heißt</translation></message>
<message><source>volumes go with an index that lies in the archive and tells offsets and sizes</source>
<translation>Bände gehören zu einem Index, der im Archiv liegt und Orte und Größen nennt</translation></message>
<message><source>where there are volumes alignment is counted from the beginning of each</source>
<translation>wo es Bände gibt, zählt die Ausrichtung ab dem Anfang jedes Bands</translation></message>
<message><source>volumes go without [whole], [sums] and [[more]]</source>
<translation>Bände gehen ohne [whole], [sums] und [[more]]</translation></message>
<message><source>either entries tell their volume, or all are one stream, cut into files of a size</source>
<translation>entweder nennen Einträge ihren Band, oder alle sind ein Strom, in Dateien einer Größe geschnitten</translation></message>
<message><source>where there are volumes no field holds the {0}</source>
<translation>wo es Bände gibt, hält kein Feld: {0}</translation></message>
<message><source>where there are volumes offsets are not counted from data_start</source>
<translation>wo es Bände gibt, zählen Orte nicht ab data_start</translation></message>
<message><source>further indexes go with an [index], and without a side file of sums</source>
<translation>weitere Indizes gehören zu einem [index] ohne Datei mit Summen daneben</translation></message>
<message><source>further index</source>
<translation>weiterer Index</translation></message>
<message><source>a mask on the whole file goes with [whole] (packed = "none" where it is not packed)</source>
<translation>eine Maske auf der ganzen Datei gehört zu [whole] (packed = "none", wo sie nicht gepackt ist)</translation></message>
<message><source>[whole] packs the file or has a mask</source>
<translation>[whole] packt die Datei oder hat eine Maske</translation></message>
<message><source>a [single] file has nothing around it: its fields are those of [single]</source>
<translation>eine [single]-Datei hat nichts um sich: ihre Felder sind die von [single]</translation></message>
<message><source>the field {0} counts from here: that takes records of a fixed length in an index that is not packed, with no folders or buckets before them</source>
<translation>das Feld {0} zählt ab hier: dazu braucht es Datensätze fester Länge in einem ungepackten Index, ohne Ordner oder Fächer davor</translation></message>
<message><source>records up to a last one have a fixed length, no name table behind them, and no entry count elsewhere</source>
<translation>Datensätze bis zu einem letzten haben eine feste Länge, keine Namenstabelle dahinter und anderswo keine Zahl der Einträge</translation></message>
<message><source>the index has no field that holds the {0}</source>
<translation>der Index hat kein Feld, das hält: {0}</translation></message>
<message><source>the index has no field that holds the offset, and none that holds a size to reckon it from</source>
<translation>der Index hat kein Feld, das den Ort hält, und keins mit einer Größe, um ihn zu errechnen</translation></message>
<message><source>without a field that holds the offset, data lies in the index's order: it cannot be sorted, has no empty records, and packed entries need a field that holds the stored size</source>
<translation>ohne ein Feld, das den Ort hält, liegen Daten in der Reihenfolge des Index: er kann nicht sortiert sein, hat keine leeren Datensätze, und gepackte Einträge brauchen ein Feld mit der gepackten Größe</translation></message>
<message><source>a field holds the name hash: [names] hash says which one</source>
<translation>ein Feld hält den Namens-Hash: [names] hash sagt, welchen</translation></message>
<message><source>a side file of sums follows the index's order, which cannot be sorted then</source>
<translation>eine Datei mit Summen daneben folgt der Reihenfolge des Index, der dann nicht sortiert sein kann</translation></message>
<message><source>a packed index in front needs a start field that holds the index stored size</source>
<translation>ein gepackter Index am Anfang braucht ein Feld davor, das seine gepackte Größe hält</translation></message>
<message><source>names behind an index in front need a start field that holds the names size or the index size</source>
<translation>Namen hinter einem Index am Anfang brauchen ein Feld davor, das die Größe der Namen oder des Index hält</translation></message>
<message><source>an index behind the data needs a start or footer field that holds the index offset</source>
<translation>ein Index hinter den Daten braucht am Anfang oder Ende ein Feld, das seinen Ort hält</translation></message>
<message><source>names behind records of no fixed length need a field that holds the entry count</source>
<translation>Namen hinter Datensätzen ohne feste Länge brauchen ein Feld, das die Zahl der Einträge hält</translation></message>
<message><source>a chain's fields hold the size or the stored size</source>
<translation>die Felder einer Kette halten die Größe oder die gepackte Größe</translation></message>
<message><source>a chain with entries, nests or last by tag has a field that holds the tag</source>
<translation>eine Kette mit entries, nests oder last nach Kennung hat ein Feld, das die Kennung hält</translation></message>
<message><source>a side file of sums belongs to an index</source>
<translation>eine Datei mit Summen daneben gehört zu einem Index</translation></message>
<message><source>a field holds the folder: [folders] says what these are</source>
<translation>ein Feld hält den Ordner: [folders] sagt, was diese sind</translation></message>
<message><source>a field holds the next entry: [buckets] says what is looked for in this way</source>
<translation>ein Feld hält den nächsten Eintrag: [buckets] sagt, was so gesucht wird</translation></message>
<message><source>a field holds the volume: [volumes] says which files these are</source>
<translation>ein Feld hält den Band: [volumes] sagt, welche Dateien das sind</translation></message>
<message><source>there is no field {0} in start or footer</source>
<translation>am Anfang oder Ende gibt es kein Feld {0}</translation></message>
<message><source>where there are several indexes all lie in the archive (wherever their index offset says, so without place or file), and tell offsets and sizes</source>
<translation>wo es mehrere Indizes gibt, liegen alle im Archiv (wo immer ihr index offset sagt, also ohne place oder file) und nennen Orte und Größen</translation></message>
<message><source>where there are several indexes offsets are not counted from data_start</source>
<translation>wo es mehrere Indizes gibt, zählen Orte nicht ab data_start</translation></message>
<message><source>where there are several indexes no field holds the {0}</source>
<translation>wo es mehrere Indizes gibt, hält kein Feld: {0}</translation></message>
<message><source>the mask on {0} cannot depend on {1}: it knows {2}</source>
<translation>die Maske auf {0} kann nicht von {1} abhängen: sie kennt {2}</translation></message>
<message><source>the mask on the {0} depends on its size, and no field tells that</source>
<translation>die Maske auf {0} hängt von dessen Größe ab, und kein Feld nennt sie</translation></message>
<message><source>none of its indexes has such paths</source>
<translation>keiner seiner Indizes hat solche Pfade</translation></message>
<message><source>Give it the beginning and the ending of one ([entry] prefix and suffix)</source>
<translation>Gib ihm Anfang und Ende von einem ([entry] prefix und suffix)</translation></message>
<message><source>{0}, in another of its indexes, would not be what it was</source>
<translation>{0}, in einem anderen seiner Indizes, wäre nicht mehr, was es war</translation></message>
<message><source>Nothing was written. The description of one of the indexes is to blame (docs/layouts.md)</source>
<translation>Nichts wurde geschrieben. Schuld ist die Beschreibung eines der Indizes (docs/layouts.md)</translation></message>
<message><source>{0} is in two of its indexes</source>
<translation>{0} ist in zweien seiner Indizes</translation></message>
<message><source>Give each index a prefix of its own ([[more]] entry)</source>
<translation>Gib jedem Index einen eigenen prefix ([[more]] entry)</translation></message>
<message><source>it would be taken for one more volume of the archive</source>
<translation>es würde für einen weiteren Band des Archivs gehalten</translation></message>
<message><source>Move it away, or write to another folder</source>
<translation>Leg es anderswohin, oder schreib in einen anderen Ordner</translation></message>
<message><source>a folder's record has a field that holds the path</source>
<translation>der Datensatz eines Ordners hat ein Feld, das den Pfad hält</translation></message>
<message><source>in a tree each folder tells how many entries and how many folders it has</source>
<translation>in einem Baum sagt jeder Ordner, wie viele Einträge und Ordner er hat</translation></message>
<message><source>in a tree folders tell of no parent, and of no first or next one</source>
<translation>in einem Baum nennen Ordner weder einen Elternordner noch einen ersten oder nächsten</translation></message>
<message><source>folders tell their parent, or the first folder in them and the next one beside them</source>
<translation>Ordner nennen ihren Elternordner oder den ersten Ordner in ihnen und den nächsten neben ihnen</translation></message>
<message><source>where folders tell the next one, free is the number that stands where there is none</source>
<translation>wo Ordner den nächsten nennen, ist free die Zahl, die steht, wo es keinen gibt</translation></message>
<message><source>an ending is in no other: such folders are a table without parents</source>
<translation>eine Endung ist in keiner anderen: solche Ordner sind eine Tabelle ohne Eltern</translation></message>
<message><source>a bucket has a fixed length and a field that holds the first entry</source>
<translation>ein Fach hat eine feste Länge und ein Feld, das den ersten Eintrag hält</translation></message>
<message><source>it holds a number of 2^63 or more</source>
<translation>es hält eine Zahl ab 2^63</translation></message>
<message><source>the field “{0=}” of entry {1} is not {2=}</source>
<translation>das Feld „{0}“ von Eintrag {1} ist nicht {2}</translation></message>
<message><source>its index says {0} entries and has room for {1}</source>
<translation>sein Index nennt {0} Einträge und hat Platz für {1}</translation></message>
<message><source>its records have no bytes at all</source>
<translation>seine Datensätze haben überhaupt keine Bytes</translation></message>
<message><source>Reading a TAR archive</source>
<translation>Ein TAR-Archiv lesen</translation></message>
<message><source>Repacking</source>
<translation>Neu packen</translation></message>
<message><source>Packing the archive</source>
<translation>Das Archiv packen</translation></message>
<message><source>Packing</source>
<translation>Packung</translation></message>
<message><source>{0} bytes are said of the file behind it, which nothing needs</source>
<translation>{0} Bytes werden von der Datei dahinter gesagt, die nichts braucht</translation></message>
<message><source>It is damaged, or made to do harm</source>
<translation>Es ist beschädigt oder böswillig gemacht</translation></message>
<message><source>it is stored with holes, which is not read</source>
<translation>es ist mit Löchern gespeichert, was nicht gelesen wird</translation></message>
<message><source>Pack it plainly</source>
<translation>Pack es einfach</translation></message>
<message><source>the {0} data is damaged ({1})</source>
<translation>die {0}-Daten sind beschädigt ({1})</translation></message>
<message><source>the description has no such field in its {0}</source>
<translation>die Beschreibung hat kein solches Feld: {0}</translation></message>
<message><source>Mend what is wrong in the text first</source>
<translation>Behebe zuerst, was im Text falsch ist</translation></message>
<message><source>a volume has nothing beside it that ends in {0}</source>
<translation>ein Band hat nichts neben sich, das auf {0} endet</translation></message>
<message><source>Its data lies in numbered files: put them into the same folder</source>
<translation>Seine Daten liegen in nummerierten Dateien: leg sie in denselben Ordner</translation></message>
<message><source>another byte</source>
<translation>ein anderes Byte</translation></message>
<message><source>it says that it unpacks to {0} bytes, and its stored ones cannot hold more than {1}</source>
<translation>es sagt, es entpacke sich zu {0} Bytes, und seine gepackten können nicht mehr als {1} halten</translation></message>
<message><source>{0} bytes lie behind its packed data, and the layout does not say what they are</source>
<translation>{0} Bytes liegen hinter seinen gepackten Daten, und das Layout sagt nicht, was sie sind</translation></message>
<message><source>They may be a checksum, which would be wrong then: the archive can be read, not written</source>
<translation>Sie könnten eine Prüfsumme sein, die dann falsch wäre: das Archiv lässt sich lesen, nicht schreiben</translation></message>
<message><source>it unpacks to {0} bytes and says {1}</source>
<translation>es entpackt sich zu {0} Bytes und sagt {1}</translation></message>
<message><source>Check the free space</source>
<translation>Prüfe den freien Platz</translation></message>
<message><source>it does not unpack to what was packed</source>
<translation>es entpackt sich nicht zu dem, was gepackt wurde</translation></message>
<message><source>Nothing was written</source>
<translation>Nichts wurde geschrieben</translation></message>
<message><source>value * {0}</source>
<translation>value * {0}</translation></message>
<message><source>the guess</source>
<translation>die Vermutung</translation></message>
<message><source>value + {0}</source>
<translation>value + {0}</translation></message>
<message><source>Writing the archive</source>
<translation>Das Archiv schreiben</translation></message>
<message><source>Packing {0=}</source>
<translation>{0} wird gepackt</translation></message>
<message><source>Packing {0}</source>
<translation>{0} wird gepackt</translation></message>
<message><source>its entries have no names, only their place in the index</source>
<translation>seine Einträge haben keine Namen, nur ihren Platz im Index</translation></message>
<message><source>Only the last ones can be removed, and none renamed: the others would get another number</source>
<translation>Nur die letzten lassen sich entfernen und keine umbenennen: die anderen bekämen eine andere Nummer</translation></message>
<message><source>its entries are packed with the dictionary {0}, and that is not among them</source>
<translation>seine Einträge sind mit dem Wörterbuch {0} gepackt, und das ist nicht unter ihnen</translation></message>
<message><source>Put the dictionary of the game's own archive into the folder</source>
<translation>Leg das Wörterbuch aus dem Archiv des Spiels in den Ordner</translation></message>
<message><source>something lies between its entries, and no field tells where these are</source>
<translation>zwischen seinen Einträgen liegt etwas, und kein Feld sagt, wo diese sind</translation></message>
<message><source>Describe what it is: a record before each entry ([entry] head), or its alignment</source>
<translation>Beschreibe, was es ist: ein Datensatz vor jedem Eintrag ([entry] head) oder seine Ausrichtung</translation></message>
<message><source>This archive's entries have no names, only their place in it: number them from 0</source>
<translation>Die Einträge dieses Archivs haben keine Namen, nur ihren Platz darin: nummeriere sie ab 0</translation></message>
<message><source>Reading a ZIP archive</source>
<translation>Ein ZIP-Archiv lesen</translation></message>
<message><source>it is packed with method {0}, which Furnel does not unpack</source>
<translation>es ist mit Verfahren {0} gepackt, das Furnel nicht entpackt</translation></message>
<message><source>Pack it again with deflate, or stored</source>
<translation>Pack es neu mit deflate oder ungepackt</translation></message>
<message><source>Making room</source>
<translation>Platz schaffen</translation></message>
<message><source>Furnel ended without warning the last time. What you changed is here.</source>
<translation>Furnel endete letztes Mal ohne Vorwarnung. Was du geändert hast, ist hier.</translation></message>
<message><source>Look at the report</source>
<translation>Den Bericht ansehen</translation></message>
<message><source>open a game first</source>
<translation>öffne zuerst ein Spiel</translation></message>
<message><source>open a game first that has a load order</source>
<translation>öffne zuerst ein Spiel, das eine Ladereihenfolge hat</translation></message>
<message><source>open a game first whose profile says how it is started</source>
<translation>öffne zuerst ein Spiel, dessen Profil sagt, wie es gestartet wird</translation></message>
<message><source>start or open a mod first</source>
<translation>beginne oder öffne zuerst eine Mod</translation></message>
<message><source>select something on the wall first</source>
<translation>wähle zuerst etwas auf der Wand</translation></message>
<message><source>open a mod and select a definition first</source>
<translation>öffne zuerst eine Mod und wähle eine Definition</translation></message>
<message><source>select a text first</source>
<translation>zuerst einen Text auswählen</translation></message>
<message><source>put a definition on the bench first</source>
<translation>leg zuerst eine Definition auf die Werkbank</translation></message>
<message><source>open a mod of a game whose profile says what new things it takes</source>
<translation>öffne eine Mod für ein Spiel, dessen Profil sagt, welche neuen Dinge es nimmt</translation></message>
<message><source>select a sound first</source>
<translation>wähle zuerst ein Geräusch</translation></message>
<message><source>select something that is swapped on the wall or in the build, or put a swap on the bench first</source>
<translation>wähle auf der Wand oder unter Bauen etwas Getauschtes, oder leg zuerst einen Tausch auf die Werkbank</translation></message>
<message><source>select a swap first that has a file for its source</source>
<translation>wähle zuerst einen Tausch, dessen Quelle eine Datei ist</translation></message>
<message><source>copy the steps of a swap first, then select another one</source>
<translation>kopiere zuerst die Schritte eines Tauschs, dann wähle einen anderen</translation></message>
<message><source>open the mod for Tarnlight Ferry first: Try it, on Games and mods</source>
<translation>öffne zuerst die Mod für Tarnlight Ferry: „Probier es“ unter Spiele und Mods</translation></message>
<message><source>there are no side panes here</source>
<translation>hier gibt es keine Seitenfelder</translation></message>
<message><source>build the mod first</source>
<translation>baue zuerst die Mod</translation></message>
<message><source>the mod is not in the game</source>
<translation>die Mod ist nicht im Spiel</translation></message>
<message><source>Game</source>
<translation>Spiel</translation></message>
<message><source>Games and mods</source>
<translation>Spiele und Mods</translation></message>
<message><source>What was opened here, how each mod is in its game, where to begin</source>
<translation>Was hier geöffnet war, wie jede Mod in ihrem Spiel steht, wo man anfängt</translation></message>
<message><source>Open a game…</source>
<translation>Ein Spiel öffnen…</translation></message>
<message><source>Point at a game's folder</source>
<translation>Auf den Ordner eines Spiels zeigen</translation></message>
<message><source>New game…</source>
<translation>Neues Spiel…</translation></message>
<message><source>Describe a game that Furnel does not know yet</source>
<translation>Ein Spiel beschreiben, das Furnel noch nicht kennt</translation></message>
<message><source>This game…</source>
<translation>Dieses Spiel …</translation></message>
<message><source>What it is called, how mods reach it, how it is started</source>
<translation>Wie es heißt, wie Mods hineinkommen, wie es gestartet wird</translation></message>
<message><source>Work out an archive…</source>
<translation>Ein Archiv ergründen…</translation></message>
<message><source>Look at an archive's bytes and describe them</source>
<translation>Die Bytes eines Archivs ansehen und beschreiben</translation></message>
<message><source>Pack a folder…</source>
<translation>Einen Ordner packen…</translation></message>
<message><source>Make an archive of a folder's files</source>
<translation>Aus den Dateien eines Ordners ein Archiv machen</translation></message>
<message><source>Mod</source>
<translation>Mod</translation></message>
<message><source>New mod…</source>
<translation>Neue Mod…</translation></message>
<message><source>Start a mod for this game</source>
<translation>Eine Mod für dieses Spiel beginnen</translation></message>
<message><source>Open a mod…</source>
<translation>Eine Mod öffnen…</translation></message>
<message><source>Open a mod that you began</source>
<translation>Eine begonnene Mod öffnen</translation></message>
<message><source>Go</source>
<translation>Gehen</translation></message>
<message><source>Find</source>
<translation>Finden</translation></message>
<message><source>Find an asset on the wall</source>
<translation>Ein Asset auf der Wand finden</translation></message>
<message><source>Fit</source>
<translation>Anpassen</translation></message>
<message><source>Make your swaps match their originals</source>
<translation>Deine Tausche an ihre Originale anpassen</translation></message>
<message><source>Build</source>
<translation>Bauen</translation></message>
<message><source>Build, package and install the mod</source>
<translation>Die Mod bauen, als Paket packen und installieren</translation></message>
<message><source>Try</source>
<translation>Testen</translation></message>
<message><source>See it in the game</source>
<translation>Es im Spiel sehen</translation></message>
<message><source>Edit</source>
<translation>Bearbeiten</translation></message>
<message><source>Undo</source>
<translation>Rückgängig</translation></message>
<message><source>Take the last change back</source>
<translation>Die letzte Änderung zurücknehmen</translation></message>
<message><source>Redo</source>
<translation>Wiederholen</translation></message>
<message><source>Make the change again</source>
<translation>Die Änderung noch einmal machen</translation></message>
<message><source>What was changed</source>
<translation>Was geändert wurde</translation></message>
<message><source>Every change of the mod; go back to any of them</source>
<translation>Jede Änderung der Mod; zu jeder lässt sich zurückgehen</translation></message>
<message><source>Search the wall</source>
<translation>Auf der Wand suchen</translation></message>
<message><source>Type a part of a name, path or number</source>
<translation>Einen Teil eines Namens, Pfads oder einer Zahl tippen</translation></message>
<message><source>Clear the sieve</source>
<translation>Das Sieb leeren</translation></message>
<message><source>Show everything again</source>
<translation>Wieder alles zeigen</translation></message>
<message><source>Swap with a file…</source>
<translation>Gegen eine Datei tauschen…</translation></message>
<message><source>Choose a file to put in this asset's place</source>
<translation>Eine Datei wählen, die an die Stelle dieses Assets kommt</translation></message>
<message><source>Swap with what was copied</source>
<translation>Gegen das Kopierte tauschen</translation></message>
<message><source>The picture or the file in the clipboard</source>
<translation>Das Bild oder die Datei in der Zwischenablage</translation></message>
<message><source>Begin with the game's own</source>
<translation>Mit dem des Spiels beginnen</translation></message>
<message><source>Its own picture or sound as the source, to change</source>
<translation>Sein eigenes Bild oder Geräusch als Quelle, zum Ändern</translation></message>
<message><source>Change its values</source>
<translation>Seine Werte ändern</translation></message>
<message><source>Open this definition's records and values on the bench</source>
<translation>Datensätze und Werte dieser Definition auf der Werkbank öffnen</translation></message>
<message><source>How is it read?…</source>
<translation>Wie wird es gelesen? …</translation></message>
<message><source>How texts of this kind are read, and what each way explains</source>
<translation>Wie Texte dieser Art gelesen werden, und was jede Art erklärt</translation></message>
<message><source>Take out…</source>
<translation>Herausnehmen…</translation></message>
<message><source>Save this asset as a file</source>
<translation>Dieses Asset als Datei speichern</translation></message>
<message><source>Copy inner path</source>
<translation>Inneren Pfad kopieren</translation></message>
<message><source>Copy the asset's path in the game</source>
<translation>Den Pfad des Assets im Spiel kopieren</translation></message>
<message><source>Show its kin</source>
<translation>Seine Verwandten zeigen</translation></message>
<message><source>The same picture or sound at other sizes, places or rates</source>
<translation>Dasselbe Bild oder Geräusch in anderer Größe, Rate oder an anderer Stelle</translation></message>
<message><source>Find what is like it</source>
<translation>Ähnliches finden</translation></message>
<message><source>Rank the wall by likeness to it</source>
<translation>Die Wand nach Ähnlichkeit mit ihm ordnen</translation></message>
<message><source>Look for the crop in the clipboard</source>
<translation>Nach dem Ausschnitt in der Zwischenablage suchen</translation></message>
<message><source>Match a folder…</source>
<translation>Einen Ordner zuordnen…</translation></message>
<message><source>Pair a folder's files with the originals that they are for</source>
<translation>Die Dateien eines Ordners mit ihren Originalen paaren</translation></message>
<message><source>New thing…</source>
<translation>Neues Ding…</translation></message>
<message><source>Add a boat, a tune … that the game does not have</source>
<translation>Ein Boot, ein Stück … hinzufügen, das das Spiel nicht hat</translation></message>
<message><source>List the tunes</source>
<translation>Die Stücke auflisten</translation></message>
<message><source>The game's music, and an album for it</source>
<translation>Die Musik des Spiels und ein Album dafür</translation></message>
<message><source>Play or stop</source>
<translation>Abspielen oder anhalten</translation></message>
<message><source>Space</source>
<translation>Leertaste</translation></message>
<message><source>Hear the selected sound</source>
<translation>Das gewählte Geräusch hören</translation></message>
<message><source>Fit all points</source>
<translation>Alle Punkte anpassen</translation></message>
<message><source>Choose steps and encoding so that the swap fits</source>
<translation>Schritte und Kodierung so wählen, dass der Tausch passt</translation></message>
<message><source>Fit every swap</source>
<translation>Jeden Tausch anpassen</translation></message>
<message><source>Fit all swaps that do not fit yet</source>
<translation>Alle Tausche anpassen, die noch nicht passen</translation></message>
<message><source>Put it on the bench</source>
<translation>Auf die Werkbank legen</translation></message>
<message><source>The swap in sight, with its points and steps</source>
<translation>Der Tausch, den du siehst, mit seinen Punkten und Schritten</translation></message>
<message><source>Records or text</source>
<translation>Datensätze oder Text</translation></message>
<message><source>Turn the definition bench over</source>
<translation>Die Definitionen-Werkbank umdrehen</translation></message>
<message><source>Choose another source…</source>
<translation>Eine andere Quelle wählen…</translation></message>
<message><source>Put another file in the source's place</source>
<translation>Eine andere Datei an die Stelle der Quelle setzen</translation></message>
<message><source>Copy its steps</source>
<translation>Seine Schritte kopieren</translation></message>
<message><source>To use the same steps in another swap</source>
<translation>Um dieselben Schritte in einem anderen Tausch zu nehmen</translation></message>
<message><source>Use the copied steps</source>
<translation>Die kopierten Schritte nehmen</translation></message>
<message><source>Put the steps that were copied in the place of these</source>
<translation>Die kopierten Schritte an die Stelle von diesen setzen</translation></message>
<message><source>Open its source</source>
<translation>Seine Quelle öffnen</translation></message>
<message><source>In the program that such files are opened with</source>
<translation>In dem Programm, mit dem solche Dateien geöffnet werden</translation></message>
<message><source>Show its source in the folder</source>
<translation>Seine Quelle im Ordner zeigen</translation></message>
<message><source>In the system's file manager</source>
<translation>In der Dateiverwaltung des Systems</translation></message>
<message><source>Show the original on the wall</source>
<translation>Das Original auf der Wand zeigen</translation></message>
<message><source>Where it lies in the game</source>
<translation>Wo es im Spiel liegt</translation></message>
<message><source>Remove the swap</source>
<translation>Den Tausch entfernen</translation></message>
<message><source>Del</source>
<translation>Entf</translation></message>
<message><source>The game's own asset is used again</source>
<translation>Das Asset des Spiels selbst gilt wieder</translation></message>
<message><source>Write the mod and read it back</source>
<translation>Die Mod schreiben und zurücklesen</translation></message>
<message><source>Package</source>
<translation>Paket packen</translation></message>
<message><source>Make one ZIP to share, of the mod as it is now</source>
<translation>Ein ZIP zum Weitergeben machen, von der Mod, wie sie jetzt ist</translation></message>
<message><source>Share…</source>
<translation>Teilen…</translation></message>
<message><source>What strangers get to know of it, and the package, tried as they would</source>
<translation>Was Fremde von ihr erfahren, und das Paket, erprobt wie sie es täten</translation></message>
<message><source>Gather sources</source>
<translation>Quellen einsammeln</translation></message>
<message><source>Copy sources from elsewhere into the mod's folder</source>
<translation>Quellen von anderswo in den Ordner der Mod kopieren</translation></message>
<message><source>Install</source>
<translation>Installieren</translation></message>
<message><source>Put the build in the game's mods folder</source>
<translation>Den Build in den Mod-Ordner des Spiels legen</translation></message>
<message><source>Remove from the game</source>
<translation>Aus dem Spiel entfernen</translation></message>
<message><source>Bring the game back as it was</source>
<translation>Das Spiel wieder so machen, wie es war</translation></message>
<message><source>Start the game</source>
<translation>Das Spiel starten</translation></message>
<message><source>Start the game with your mods</source>
<translation>Das Spiel mit deinen Mods starten</translation></message>
<message><source>Draw the stills anew</source>
<translation>Die Standbilder neu zeichnen</translation></message>
<message><source>The same scene, before and after</source>
<translation>Dieselbe Szene, vorher und nachher</translation></message>
<message><source>Where mods meet</source>
<translation>Wo Mods sich treffen</translation></message>
<message><source>What several mods change, who has its way, and the bridge</source>
<translation>Was mehrere Mods ändern, welche sich durchsetzt, und die Brücke</translation></message>
<message><source>Get a mod…</source>
<translation>Eine Mod holen…</translation></message>
<message><source>Look into somebody else's mod and put it into the game</source>
<translation>In die Mod eines anderen sehen und sie ins Spiel legen</translation></message>
<message><source>Window</source>
<translation>Fenster</translation></message>
<message><source>Do anything…</source>
<translation>Irgendetwas tun…</translation></message>
<message><source>Find any command by its name</source>
<translation>Jeden Befehl nach seinem Namen finden</translation></message>
<message><source>Fold the side panes away</source>
<translation>Die Seitenfelder einklappen</translation></message>
<message><source>More room for the middle; once more brings them back</source>
<translation>Mehr Platz für die Mitte; noch einmal holt sie zurück</translation></message>
<message><source>Settings</source>
<translation>Einstellungen</translation></message>
<message><source>Theme, size, sound, programs, keys, what is kept on this machine</source>
<translation>Farben, Größe, Ton, Programme, Tasten, was auf diesem Rechner liegt</translation></message>
<message><source>Light or dark</source>
<translation>Hell oder dunkel</translation></message>
<message><source>Change the theme</source>
<translation>Die Farben wechseln</translation></message>
<message><source>Show me around</source>
<translation>Zeig mir alles</translation></message>
<message><source>Seven things to do on the demo's mod, from the wall to the game</source>
<translation>Sieben Dinge zum Tun in der Demo-Mod, von der Wand bis ins Spiel</translation></message>
<message><source>Keys</source>
<translation>Tasten</translation></message>
<message><source>Every key at a glance</source>
<translation>Alle Tasten auf einen Blick</translation></message>
<message><source>What was said</source>
<translation>Was gesagt wurde</translation></message>
<message><source>All notices, and what can be done about them</source>
<translation>Alle Meldungen, und was sich damit tun lässt</translation></message>
<message><source>Quit</source>
<translation>Beenden</translation></message>
<message><source>Close Furnel</source>
<translation>Furnel schließen</translation></message>
<message><source>Return</source>
<translation>Eingabe</translation></message>
<message><source>Enter</source>
<translation>Eingabe</translation></message>
<message><source>Opens the mod {0}</source>
<translation>Öffnet die Mod {0}</translation></message>
<message><source>Looks at {0=}</source>
<translation>Sieht {0=} an</translation></message>
<message><source>Looks for what {0=} replaces</source>
<translation>Sucht, was {0=} ersetzt</translation></message>
<message><source>Opens {0=}</source>
<translation>Öffnet {0=}</translation></message>
<message><source>Looks at {0=} as a new game</source>
<translation>Sieht {0=} als neues Spiel an</translation></message>
<message><source>Furnel</source>
<translation>Furnel</translation></message>
<message><source>Fusion</source>
<translation>Fusion</translation></message>
<message><source>Something unforeseen went wrong ({0}). Your mod is saved.</source>
<translation>Etwas Unvorhergesehenes ging schief ({0}). Deine Mod ist gespeichert.</translation></message>
<message><source>Arrows</source>
<translation>Pfeile</translation></message>
<message><source>from byte to byte</source>
<translation>von Byte zu Byte</translation></message>
<message><source>Shift and arrows, drag</source>
<translation>Umschalt und Pfeile, Ziehen</translation></message>
<message><source>choose bytes</source>
<translation>Bytes wählen</translation></message>
<message><source>Home, End</source>
<translation>Pos1, Ende</translation></message>
<message><source>the first and the last byte</source>
<translation>das erste und das letzte Byte</translation></message>
<message><source>PgUp, PgDown, wheel</source>
<translation>Bild auf, Bild ab, Rad</translation></message>
<message><source>up and down</source>
<translation>auf und ab</translation></message>
<message><source>Bytes</source>
<translation>Bytes</translation></message>
<message><source>found by its signature</source>
<translation>an der Signatur gefunden</translation></message>
<message><source>INDEX START</source>
<translation>ANFANG DES INDEX</translation></message>
<message><source>EACH FOLDER</source>
<translation>JEDER ORDNER</translation></message>
<message><source>EACH ENTRY</source>
<translation>JEDER EINTRAG</translation></message>
<message><source>BEFORE EACH ENTRY</source>
<translation>VOR JEDEM EINTRAG</translation></message>
<message><source>Go to the next one; a right click says what it holds</source>
<translation>Zum nächsten gehen; ein Rechtsklick sagt, was es hält</translation></message>
<message><source>It holds the {0}</source>
<translation>Es hält: {0}</translation></message>
<message><source>It holds nothing that is known</source>
<translation>Es hält nichts Bekanntes</translation></message>
<message><source>Write a copy…</source>
<translation>Eine Kopie schreiben…</translation></message>
<message><source>Write the archive with these changes to another file, and prove it</source>
<translation>Das Archiv mit diesen Änderungen in eine andere Datei schreiben und sie prüfen</translation></message>
<message><source>The new content of {0}</source>
<translation>Der neue Inhalt von {0}</translation></message>
<message><source>Rename the entry</source>
<translation>Den Eintrag umbenennen</translation></message>
<message><source>Its path</source>
<translation>Sein Pfad</translation></message>
<message><source>Rename</source>
<translation>Umbenennen</translation></message>
<message><source>Entries</source>
<translation>Einträge</translation></message>
<message><source>Copy its path</source>
<translation>Seinen Pfad kopieren</translation></message>
<message><source>added from {0}</source>
<translation>hinzugefügt aus {0}</translation></message>
<message><source>the archive</source>
<translation>das Archiv</translation></message>
<message><source>Files to put into the archive</source>
<translation>Dateien, die ins Archiv kommen</translation></message>
<message><source>left out</source>
<translation>weggelassen</translation></message>
<message><source>ENTRIES  {0}</source>
<translation>EINTRÄGE  {0}</translation></message>
<message><source>Write a copy with {0}…</source>
<translation>Eine Kopie mit {0} schreiben…</translation></message>
<message><source>Replace…</source>
<translation>Ersetzen…</translation></message>
<message><source>Give this entry the content of a file</source>
<translation>Diesem Eintrag den Inhalt einer Datei geben</translation></message>
<message><source>Add…</source>
<translation>Hinzufügen…</translation></message>
<message><source>Put files into the archive</source>
<translation>Dateien ins Archiv legen</translation></message>
<message><source>Rename…</source>
<translation>Umbenennen…</translation></message>
<message><source>Give this entry another path</source>
<translation>Diesem Eintrag einen anderen Pfad geben</translation></message>
<message><source>Leave out</source>
<translation>Weglassen</translation></message>
<message><source>Leave this entry out of the copy</source>
<translation>Diesen Eintrag in der Kopie weglassen</translation></message>
<message><source>As it was</source>
<translation>Wie es war</translation></message>
<message><source>Take back what is to be done to this entry</source>
<translation>Zurücknehmen, was mit diesem Eintrag geschehen soll</translation></message>
<message><source>, content from {0=}</source>
<translation>, Inhalt aus {0}</translation></message>
<message><source>{n} change</source>
<translation>{n} Änderung</translation></message>
<message><source>{n} changes</source>
<translation>{n} Änderungen</translation></message>
<message><source>The same letters in every such archive</source>
<translation>Dieselben Buchstaben in jedem solchen Archiv</translation></message>
<message><source>How many entries there are</source>
<translation>Wie viele Einträge es gibt</translation></message>
<message><source>The first entry's name, with all the room that it has</source>
<translation>Der Name des ersten Eintrags, mit allem Platz, den er hat</translation></message>
<message><source>Where the first entry's data begins</source>
<translation>Wo die Daten des ersten Eintrags beginnen</translation></message>
<message><source>How large the first entry is</source>
<translation>Wie groß der erste Eintrag ist</translation></message>
<message><source>How many bytes the first entry takes where it is packed</source>
<translation>Wie viele Bytes der erste Eintrag gepackt braucht</translation></message>
<message><source>a number</source>
<translation>eine Zahl</translation></message>
<message><source>A number that nobody understands yet</source>
<translation>Eine Zahl, die noch niemand versteht</translation></message>
<message><source>Another file…</source>
<translation>Andere Datei…</translation></message>
<message><source>Look at another archive</source>
<translation>Ein anderes Archiv ansehen</translation></message>
<message><source>Take all out…</source>
<translation>Alles herausnehmen…</translation></message>
<message><source>Write every entry as a file</source>
<translation>Jeden Eintrag als Datei schreiben</translation></message>
<message><source>Keep this layout</source>
<translation>Dieses Layout behalten</translation></message>
<message><source>Put it with your layouts, where profiles and every command find it</source>
<translation>Zu deinen Layouts legen, wo Profile und jeder Befehl es finden</translation></message>
<message><source>Back to the wall</source>
<translation>Zurück zur Wand</translation></message>
<message><source>Esc</source>
<translation>Esc</translation></message>
<message><source>FOUND, AND WHAT DOES NOT ADD UP</source>
<translation>GEFUNDEN, UND WAS NICHT AUFGEHT</translation></message>
<message><source>Description</source>
<translation>Beschreibung</translation></message>
<message><source>An archive to work out</source>
<translation>Ein Archiv zum Ergründen</translation></message>
<message><source>Looking at {0=}</source>
<translation>{0} wird angesehen</translation></message>
<message><source>what was written in the description</source>
<translation>was in der Beschreibung stand</translation></message>
<message><source>Keeping the layout</source>
<translation>Das Layout behalten</translation></message>
<message><source>Taking out {0=}</source>
<translation>{0} wird herausgenommen</translation></message>
<message><source>The description of the archive: docs/layouts.md has a tutorial</source>
<translation>Die Beschreibung des Archivs: docs/layouts.md hat eine Anleitung</translation></message>
<message><source>What to begin the description from</source>
<translation>Womit die Beschreibung beginnt</translation></message>
<message><source>What was found</source>
<translation>Was gefunden wurde</translation></message>
<message><source>{0} in {1}</source>
<translation>{0} in {1}</translation></message>
<message><source>begin from …</source>
<translation>beginnen mit …</translation></message>
<message><source>the description</source>
<translation>die Beschreibung</translation></message>
<message><source>The changed copy</source>
<translation>Die geänderte Kopie</translation></message>
<message><source>That is the archive itself: write the copy to another file</source>
<translation>Das ist das Archiv selbst: schreib die Kopie in eine andere Datei</translation></message>
<message><source>{0=} was written, read back and found as it should be</source>
<translation>{0} wurde geschrieben, zurückgelesen und für richtig befunden</translation></message>
<message><source>Where to put the entries</source>
<translation>Wohin die Einträge kommen</translation></message>
<message><source>taken out</source>
<translation>herausgenommen</translation></message>
<message><source>the layout {0=}: {1}</source>
<translation>das Layout {0}: {1}</translation></message>
<message><source>{0} entries, each of them reads; {1} of the bytes explained</source>
<translation>{0} Einträge, jeder davon lässt sich lesen; {1} der Bytes sind erklärt</translation></message>
<message><source>{0} chosen, they are</source>
<translation>{0} gewählt, das ist</translation></message>
<message><source>Drag over bytes to say what they are</source>
<translation>Zieh über Bytes, um zu sagen, was sie sind</translation></message>
<message><source>You have a layout “{0=}” already. This one takes its place; give it another name to keep both.</source>
<translation>Es gibt schon eine eigene Beschreibung „{0=}“. Diese kommt an ihre Stelle; gib ihr einen anderen Namen, um beide zu behalten.</translation></message>
<message><source>Put it in its place</source>
<translation>An ihre Stelle setzen</translation></message>
<message><source>Kept as {0}: profiles and every command know “{1=}” now</source>
<translation>Als {0} behalten: Profile und jeder Befehl kennen jetzt „{1}“</translation></message>
<message><source>{0} files in {1}</source>
<translation>{0} Dateien in {1}</translation></message>
<message><source>{0} things do not add up</source>
<translation>{0} Dinge gehen nicht auf</translation></message>
<message><source>No entries yet</source>
<translation>Noch keine Einträge</translation></message>
<message><source>   not explained</source>
<translation>   nicht erklärt</translation></message>
<message><source>{n} byte</source>
<translation>{n} Byte</translation></message>
<message><source>{n} bytes</source>
<translation>{n} Bytes</translation></message>
<message><source>line {0}</source>
<translation>Zeile {0}</translation></message>
<message><source>It cannot be read</source>
<translation>Es lässt sich nicht lesen</translation></message>
<message><source>Pictures of entries</source>
<translation>Bilder der Einträge</translation></message>
<message><source>Find the hull</source>
<translation>Finde den Rumpf</translation></message>
<message><source>Everything the game has is on this wall. Press {0}, type hull otter, and click its tile. Its ember corner says that this mod swaps it.</source>
<translation>Alles, was das Spiel hat, ist auf dieser Wand. Drück {0}, tippe hull otter und klick auf die Kachel. Ihre glutorange Ecke sagt, dass diese Mod sie tauscht.</translation></message>
<message><source>Press Enter. Left of the line is the game's own, in teal; right of it is yours, in ember. Drag the line.</source>
<translation>Drück Eingabe. Links der Linie ist das des Spiels, in Blaugrün; rechts ist deins, in Orange. Zieh die Linie.</translation></message>
<message><source>Let it fit</source>
<translation>Lass es passen</translation></message>
<message><source>The rose crosses on the right would break in the game. Press Fit all ({0}): steps bring it to the original's size, format and levels.</source>
<translation>Die roten Kreuze rechts würden im Spiel brechen. Drück „Alles anpassen“ ({0}): Schritte bringen es auf Größe, Format und Stufen des Originals.</translation></message>
<message><source>Take it back</source>
<translation>Nimm es zurück</translation></message>
<message><source>Nothing is ever lost: press {0}, and the crosses are there again.</source>
<translation>Nichts geht je verloren: drück {0}, und die Kreuze sind wieder da.</translation></message>
<message><source>And again</source>
<translation>Und noch einmal</translation></message>
<message><source>{0} makes it again. {1} lists everything that was changed, to go back to any of it.</source>
<translation>{0} macht es wieder. {1} listet auf, was geändert wurde; zu allem lässt sich zurückgehen.</translation></message>
<message><source>Build and install</source>
<translation>Bauen und installieren</translation></message>
<message><source>Go to Build ({0}), press Build ({1}), then Install ({2}). What was written is read back and compared before it counts.</source>
<translation>Geh zu Bauen ({0}), drück Bauen ({1}), dann Installieren ({2}). Was geschrieben wurde, wird zurückgelesen und verglichen, ehe es zählt.</translation></message>
<message><source>Go to Try ({0}): the same scene before and after, and the game's own word on every swap.</source>
<translation>Geh zu Testen ({0}): dieselbe Szene vorher und nachher, und was das Spiel selbst zu jedem Tausch sagt.</translation></message>
<message><source>Skip it</source>
<translation>Überspringen</translation></message>
<message><source>To the next stop</source>
<translation>Zur nächsten Station</translation></message>
<message><source>End the round</source>
<translation>Den Rundgang beenden</translation></message>
<message><source>It does not come again by itself; “Show me around” begins it anew</source>
<translation>Von selbst kommt er nicht wieder; „Zeig mir alles“ beginnt ihn von vorn</translation></message>
<message><source>That was the whole way, from the wall to the game. Your own game goes the same.</source>
<translation>Das war der ganze Weg, von der Wand ins Spiel. Mit deinem eigenen Spiel geht es genauso.</translation></message>
<message><source>{0} OF {1}</source>
<translation>{0} VON {1}</translation></message>
<message><source>Shown around: {0}. {1}</source>
<translation>Rundgang: {0}. {1}</translation></message>
<message><source>That was all</source>
<translation>Das war alles</translation></message>
<message><source>{0} assets</source>
<translation>{0} Assets</translation></message>
<message><source>{0} files taken out to {1}</source>
<translation>{0} Dateien nach {1} herausgenommen</translation></message>
<message><source>Pack {0=}</source>
<translation>{0} packen</translation></message>
<message><source>As what kind of archive?</source>
<translation>Als welche Art von Archiv?</translation></message>
<message><source>Go on</source>
<translation>Weiter</translation></message>
<message><source>The archive</source>
<translation>Das Archiv</translation></message>
<message><source>A folder to make an archive of</source>
<translation>Ein Ordner, aus dem ein Archiv wird</translation></message>
<message><source>Taken out to {0}</source>
<translation>Nach {0} herausgenommen</translation></message>
<message><source>Where to put {0=}</source>
<translation>Wohin kommt {0}?</translation></message>
<message><source>{0} files packed as {1}</source>
<translation>{0} Dateien als {1} gepackt</translation></message>
<message><source>as it is</source>
<translation>wie es ist</translation></message>
<message><source>Up, Down</source>
<translation>Auf, Ab</translation></message>
<message><source>from row to row</source>
<translation>von Zeile zu Zeile</translation></message>
<message><source>to its bench</source>
<translation>auf die Werkbank</translation></message>
<message><source>Contents of the mod</source>
<translation>Inhalt der Mod</translation></message>
<message><source>made by the build</source>
<translation>beim Bauen gemacht</translation></message>
<message><source>changed since</source>
<translation>seither geändert</translation></message>
<message><source>up to date</source>
<translation>aktuell</translation></message>
<message><source>{0}, {1}, {2} of {3}</source>
<translation>{0}, {1}, {2} von {3}</translation></message>
<message><source>Nothing is swapped yet. Drop a file on an asset in Find.</source>
<translation>Noch ist nichts getauscht. Zieh in Finden eine Datei auf ein Asset.</translation></message>
<message><source>inner path</source>
<translation>innerer Pfad</translation></message>
<message><source>in the build</source>
<translation>im Build</translation></message>
<message><source>made to go with the swaps</source>
<translation>passend zu den Tauschen gemacht</translation></message>
<message><source>Author</source>
<translation>Von</translation></message>
<message><source>Summary</source>
<translation>Kurz gesagt</translation></message>
<message><source>Licence</source>
<translation>Lizenz</translation></message>
<message><source>Picture</source>
<translation>Bild</translation></message>
<message><source>Credits</source>
<translation>Nennungen</translation></message>
<message><source>Unpacked</source>
<translation>Entpackt</translation></message>
<message><source>Judged by the game</source>
<translation>Vom Spiel beurteilt</translation></message>
<message><source>Removed</source>
<translation>Entfernt</translation></message>
<message><source>Tried</source>
<translation>Erprobt</translation></message>
<message><source>Version</source>
<translation>Version</translation></message>
<message><source>your name</source>
<translation>dein Name</translation></message>
<message><source>one sentence on what it does</source>
<translation>ein Satz dazu, was sie tut</translation></message>
<message><source>Tags</source>
<translation>Stichworte</translation></message>
<message><source>boats, evening</source>
<translation>Boote, Abend</translation></message>
<message><source>Languages</source>
<translation>Sprachen</translation></message>
<message><source>en, de</source>
<translation>en, de</translation></message>
<message><source>Package and try it</source>
<translation>Paket packen und erproben</translation></message>
<message><source>One ZIP, opened in a copy of the game as a stranger would</source>
<translation>Ein ZIP, in einer Kopie des Spiels geöffnet, wie es Fremde täten</translation></message>
<message><source>Back</source>
<translation>Zurück</translation></message>
<message><source>whose it is, and under what terms</source>
<translation>wessen es ist, und zu welchen Bedingungen</translation></message>
<message><source>Credit</source>
<translation>Nennung</translation></message>
<message><source>merge.py in the package</source>
<translation>merge.py im Paket</translation></message>
<message><source>Copy</source>
<translation>Kopieren</translation></message>
<message><source>Into the clipboard, for a page that asks for it</source>
<translation>In die Zwischenablage, für eine Seite, die danach fragt</translation></message>
<message><source>Take the still of Try</source>
<translation>Das Standbild von Testen nehmen</translation></message>
<message><source>The scene with your mods, as the game draws it</source>
<translation>Die Szene mit deinen Mods, wie das Spiel sie zeichnet</translation></message>
<message><source>Its figures, moving</source>
<translation>Ihre Figuren, bewegt</translation></message>
<message><source>The frames of a fitted sheet, one animation after the other</source>
<translation>Die Bilder eines angepassten Bogens, eine Bewegung nach der anderen</translation></message>
<message><source>Choose…</source>
<translation>Wählen…</translation></message>
<message><source>Another picture</source>
<translation>Ein anderes Bild</translation></message>
<message><source>merge.py, which merges this mod with others for people without Furnel</source>
<translation>merge.py, das diese Mod für Leute ohne Furnel mit anderen zusammenführt</translation></message>
<message><source>{n} chosen source</source>
<translation>{n} gewählte Quelle</translation></message>
<message><source>{n} chosen sources</source>
<translation>{n} gewählte Quellen</translation></message>
<message><source>{n} source</source>
<translation>{n} Quelle</translation></message>
<message><source>{n} sources</source>
<translation>{n} Quellen</translation></message>
<message><source>Remembering credits</source>
<translation>Nennungen merken</translation></message>
<message><source>Credit {0}</source>
<translation>{0} nennen</translation></message>
<message><source>A picture of the mod</source>
<translation>Ein Bild der Mod</translation></message>
<message><source>Drawing figures</source>
<translation>Figuren zeichnen</translation></message>
<message><source>Packaged as {0=} in the mod's build folder</source>
<translation>Als {0} im Build-Ordner der Mod gepackt</translation></message>
<message><source>Packaging</source>
<translation>Paket packen</translation></message>
<message><source>Picture of the mod</source>
<translation>Bild der Mod</translation></message>
<message><source>What others may do with it, by its SPDX identifier</source>
<translation>Was andere damit tun dürfen, nach seinem SPDX-Kürzel</translation></message>
<message><source>More about it, in Markdown</source>
<translation>Mehr darüber, in Markdown</translation></message>
<message><source>Sources and whose they are</source>
<translation>Quellen, und wessen sie sind</translation></message>
<message><source>How it reads</source>
<translation>Wie es sich liest</translation></message>
<message><source>What changed</source>
<translation>Was sich geändert hat</translation></message>
<message><source>What changed is worked out when the mod is built; write what you like</source>
<translation>Was sich geändert hat, wird beim Bauen ermittelt; schreib, was du magst</translation></message>
<message><source>What people without Furnel read in the package</source>
<translation>Was Leute ohne Furnel im Paket lesen</translation></message>
<message><source>How the description looks on a page</source>
<translation>Wie die Beschreibung auf einer Seite aussieht</translation></message>
<message><source>What is otherwise than in the last package: yours to edit</source>
<translation>Was anders ist als im letzten Paket: du kannst es bearbeiten</translation></message>
<message><source>WHAT IT SAYS OF ITSELF</source>
<translation>WAS SIE ÜBER SICH SAGT</translation></message>
<message><source>ITS PICTURE</source>
<translation>IHR BILD</translation></message>
<message><source>BEFORE IT GOES OUT</source>
<translation>EHE SIE HINAUSGEHT</translation></message>
<message><source>IN THE PACKAGE</source>
<translation>IM PAKET</translation></message>
<message><source>What it says of itself</source>
<translation>Was sie über sich sagt</translation></message>
<message><source>The package</source>
<translation>Das Paket</translation></message>
<message><source>Share {0=}</source>
<translation>{0} teilen</translation></message>
<message><source>chosen source</source>
<translation>gewählte Quelle</translation></message>
<message><source>Copied the {0}</source>
<translation>{0} kopiert</translation></message>
<message><source>Put merge.py into the package</source>
<translation>merge.py ins Paket legen</translation></message>
<message><source>Leave merge.py out of the package</source>
<translation>merge.py aus dem Paket lassen</translation></message>
<message><source>Change the {0}</source>
<translation>{0} ändern</translation></message>
<message><source>Change the picture</source>
<translation>Das Bild ändern</translation></message>
<message><source>drop a picture here,
or take the still of Try</source>
<translation>zieh ein Bild hierher
oder nimm das Standbild von Testen</translation></message>
<message><source>{0} without credit</source>
<translation>{0} ohne Nennung</translation></message>
<message><source>Of every source it is said whose it is.</source>
<translation>Bei jeder Quelle ist gesagt, wessen sie ist.</translation></message>
<message><source>{0} could be said better</source>
<translation>Besser sagen ließe sich: {0}</translation></message>
<message><source>Everything is said</source>
<translation>Alles ist gesagt</translation></message>
<message><source>whose the {0} is, and under what terms</source>
<translation>wessen {0} ist, und zu welchen Bedingungen</translation></message>
<message><source>whose the {0} are, and under what terms</source>
<translation>wessen {0} sind, und zu welchen Bedingungen</translation></message>
<message><source>list of changes</source>
<translation>Liste der Änderungen</translation></message>
<message><source>Pictures</source>
<translation>Bilder</translation></message>
<message><source>{0}, but {1}</source>
<translation>{0}, aber {1}</translation></message>
<message><source>{0}, for {1}</source>
<translation>{0}, für {1}</translation></message>
<message><source>*There is no description yet.*</source>
<translation>*Noch gibt es keine Beschreibung.*</translation></message>
<message><source>What changed could not be kept: {0}</source>
<translation>Was sich geändert hat, ließ sich nicht behalten: {0}</translation></message>
<message><source>{n} thing</source>
<translation>{n} Punkt</translation></message>
<message><source>{n} things</source>
<translation>{n} Punkte</translation></message>
<message><source>nobody is named</source>
<translation>niemand ist genannt</translation></message>
<message><source>Name</source>
<translation>Name</translation></message>
<message><source>who made it</source>
<translation>wer sie gemacht hat</translation></message>
<message><source>what it changes, in a sentence</source>
<translation>was sie ändert, in einem Satz</translation></message>
<message><source>Category</source>
<translation>Art</translation></message>
<message><source>look, sound, …</source>
<translation>Aussehen, Ton, …</translation></message>
<message><source>Built, read back, and installed in the game.</source>
<translation>Gebaut, zurückgelesen und im Spiel installiert.</translation></message>
<message><source>Built and read back. In the game is an older build: install again.</source>
<translation>Gebaut und zurückgelesen. Im Spiel ist ein älterer Build: installiere neu.</translation></message>
<message><source>Built and read back. It is in the game's folder, and switched off.</source>
<translation>Gebaut und zurückgelesen. Sie ist im Ordner des Spiels und ausgeschaltet.</translation></message>
<message><source>Built and read back. In its place in the game lies something that Furnel did not put there.</source>
<translation>Gebaut und zurückgelesen. An ihrer Stelle im Spiel liegt etwas, das nicht von Furnel kommt.</translation></message>
<message><source>Remove</source>
<translation>Entfernen</translation></message>
<message><source>Where they meet</source>
<translation>Wo sie sich treffen</translation></message>
<message><source>The build</source>
<translation>Der Build</translation></message>
<message><source>What strangers get to know of it, and the package</source>
<translation>Was Fremde von ihr erfahren, und das Paket</translation></message>
<message><source>Build even what breaks</source>
<translation>Auch bauen, was bricht</translation></message>
<message><source>To see for yourself what the game says</source>
<translation>Um selbst zu sehen, was das Spiel sagt</translation></message>
<message><source>WHAT THE MOD SAYS OF ITSELF</source>
<translation>WAS DIE MOD ÜBER SICH SAGT</translation></message>
<message><source>CLASHES WITH INSTALLED MODS</source>
<translation>ZUSAMMENSTÖSSE MIT INSTALLIERTEN MODS</translation></message>
<message><source>Asset by asset and value by value, who wins, and the bridge</source>
<translation>Asset um Asset und Wert um Wert, wer sich durchsetzt, und die Brücke</translation></message>
<message><source>{0}, {1}, for {2=}</source>
<translation>{0}, {1}, für {2}</translation></message>
<message><source>{0} of {1} swaps break. Fit them before you build.</source>
<translation>{0} von {1} Tauschen brechen. Pass sie an, ehe du baust.</translation></message>
<message><source>None: no other enabled mod touches what yours does.</source>
<translation>Keine: keine andere eingeschaltete Mod berührt, was deine berührt.</translation></message>
<message><source>A mod needs a name</source>
<translation>Eine Mod braucht einen Namen</translation></message>
<message><source>No mod is open</source>
<translation>Keine Mod ist offen</translation></message>
<message><source>Start one with {0}</source>
<translation>Beginne eine mit {0}</translation></message>
<message><source>Not built yet.</source>
<translation>Noch nicht gebaut.</translation></message>
<message><source>{0=} wins</source>
<translation>{0} setzt sich durch</translation></message>
<message><source>yours wins</source>
<translation>deine setzt sich durch</translation></message>
<message><source>Value error, </source>
<translation>Wertfehler, </translation></message>
<message><source>The {0} stays {1}: {2}</source>
<translation>{0} bleibt {1}: {2}</translation></message>
<message><source>{n} swap</source>
<translation>{n} Tausch</translation></message>
<message><source>{n} swaps</source>
<translation>{n} Tausche</translation></message>
<message><source>The build is stale: {0} changed since.</source>
<translation>Der Build ist veraltet: seither geändert: {0}.</translation></message>
<message><source>also in {0=}: {1}</source>
<translation>auch in {0}: {1}</translation></message>
<message><source>Built and read back. Not installed in the game yet.</source>
<translation>Gebaut und zurückgelesen. Noch nicht im Spiel installiert.</translation></message>
<message><source>the bridge has both</source>
<translation>die Brücke hat beides</translation></message>
<message><source>Building</source>
<translation>Bauen</translation></message>
<message><source>Built {0}; read back and compared</source>
<translation>{0} gebaut; zurückgelesen und verglichen</translation></message>
<message><source>{n} file</source>
<translation>{n} Datei</translation></message>
<message><source>{n} files</source>
<translation>{n} Dateien</translation></message>
<message><source>In the game's mods folder, under “{0}”: {1}. What lies there now {2}.</source>
<translation>Im Mod-Ordner des Spiels, unter „{0}“: {1}. Was jetzt dort liegt, {2}.</translation></message>
<message><source>The game's folder</source>
<translation>Der Ordner des Spiels</translation></message>
<message><source>A mod's project</source>
<translation>Das Projekt einer Mod</translation></message>
<message><source>A file to put in the place of {0=}</source>
<translation>Eine Datei an die Stelle von {0}</translation></message>
<message><source>{n} asset</source>
<translation>{n} Asset</translation></message>
<message><source>{n} assets</source>
<translation>{n} Assets</translation></message>
<message><source>A folder with files for this game</source>
<translation>Ein Ordner mit Dateien für dieses Spiel</translation></message>
<message><source>Install over it</source>
<translation>Darüber installieren</translation></message>
<message><source>comes back with Remove</source>
<translation>kommt mit Entfernen zurück</translation></message>
<message><source>Remove it all the same</source>
<translation>Trotzdem entfernen</translation></message>
<message><source>is gone then</source>
<translation>ist dann fort</translation></message>
<message><source>Something else lies there</source>
<translation>Etwas anderes liegt dort</translation></message>
<message><source>your swap, {0}</source>
<translation>dein Tausch, {0}</translation></message>
<message><source>on the wall, {0}</source>
<translation>auf der Wand, {0}</translation></message>
<message><source>No program shows folders here: it is {0}</source>
<translation>Hier zeigt kein Programm Ordner: er ist {0}</translation></message>
<message><source>There is nothing at {0}</source>
<translation>Bei {0} ist nichts</translation></message>
<message><source>Select what it is to replace first</source>
<translation>Wähle zuerst, was es ersetzen soll</translation></message>
<message><source>{0} could not be started: choose another one in the settings</source>
<translation>{0} ließ sich nicht starten: wähle in den Einstellungen ein anderes</translation></message>
<message><source>There is no picture in the clipboard: copy a crop of the game first</source>
<translation>In der Zwischenablage ist kein Bild: kopiere zuerst einen Ausschnitt des Spiels</translation></message>
<message><source>Copied {0}</source>
<translation>{0} kopiert</translation></message>
<message><source>Everything fits already</source>
<translation>Alles passt schon</translation></message>
<message><source>set {0=}</source>
<translation>{0} setzen</translation></message>
<message><source>a setting: {0}</source>
<translation>eine Einstellung: {0}</translation></message>
<message><source>swap {0}</source>
<translation>Tausch {0}</translation></message>
<message><source>asset {0}</source>
<translation>Asset {0}</translation></message>
<message><source>Furnel mods</source>
<translation>Furnel-Mods</translation></message>
<message><source>No program opens such files here: it is {0}</source>
<translation>Hier öffnet kein Programm solche Dateien: sie ist {0}</translation></message>
<message><source>There is neither a picture nor a file in the clipboard: copy one first</source>
<translation>In der Zwischenablage ist weder ein Bild noch eine Datei: kopiere zuerst eins</translation></message>
<message><source>{0=} is a source: open a mod first, then drop it on the wall</source>
<translation>{0} ist eine Quelle: öffne zuerst eine Mod, dann zieh sie auf die Wand</translation></message>
<message><source>such as 256</source>
<translation>etwa 256</translation></message>
<message><source>such as 12 kB</source>
<translation>etwa 12 kB</translation></message>
<message><source>such as 0.5 s or 1:30</source>
<translation>etwa 0.5 s oder 1:30</translation></message>
<message><source>Drop a file on any tile to swap it</source>
<translation>Zieh eine Datei auf eine Kachel, um sie zu tauschen</translation></message>
<message><source>Select something on the wall to see what it is and what the game demands of it.</source>
<translation>Wähle etwas auf der Wand, um zu sehen, was es ist und was das Spiel davon verlangt.</translation></message>
<message><source>Swap…</source>
<translation>Tauschen…</translation></message>
<message><source>Change values</source>
<translation>Werte ändern</translation></message>
<message><source>Open in Fit</source>
<translation>In Anpassen öffnen</translation></message>
<message><source>Make the swap match  (Enter)</source>
<translation>Den Tausch passend machen  (Eingabe)</translation></message>
<message><source>Play</source>
<translation>Abspielen</translation></message>
<message><source>The places in the game's definitions that name it</source>
<translation>Die Stellen in den Definitionen des Spiels, die es nennen</translation></message>
<message><source>, packed {0}</source>
<translation>, gepackt {0}</translation></message>
<message><source>Preview</source>
<translation>Vorschau</translation></message>
<message><source>Choose a file to put in its place</source>
<translation>Eine Datei wählen, die an seine Stelle kommt</translation></message>
<message><source>Its records and values on the bench</source>
<translation>Seine Datensätze und Werte auf der Werkbank</translation></message>
<message><source>Save it as a file</source>
<translation>Als Datei speichern</translation></message>
<message><source>Hear it</source>
<translation>Anhören</translation></message>
<message><source>Show its {0} kin</source>
<translation>Seine {0} Verwandten zeigen</translation></message>
<message><source>Named in {0}</source>
<translation>Genannt in {0}</translation></message>
<message><source>Named in {0} places</source>
<translation>An {0} Stellen genannt</translation></message>
<message><source>Stored</source>
<translation>Gespeichert</translation></message>
<message><source>Seen in the game: {0=}</source>
<translation>Im Spiel gesehen: {0}</translation></message>
<message><source>Role</source>
<translation>Rolle</translation></message>
<message><source>Stop</source>
<translation>Anhalten</translation></message>
<message><source>Swapped in this mod</source>
<translation>In dieser Mod getauscht</translation></message>
<message><source>Nothing that the game has fits here.</source>
<translation>Nichts, was das Spiel hat, passt hierher.</translation></message>
<message><source>Choose an asset</source>
<translation>Ein Asset wählen</translation></message>
<message><source>Search</source>
<translation>Suchen</translation></message>
<message><source>Take it</source>
<translation>Nehmen</translation></message>
<message><source>Name this asset  (Enter)</source>
<translation>Dieses Asset nennen  (Eingabe)</translation></message>
<message><source>Leave it</source>
<translation>Lassen</translation></message>
<message><source>Change nothing  (Esc)</source>
<translation>Nichts ändern  (Esc)</translation></message>
<message><source>It was taken out of {0}, and is swapped for that</source>
<translation>Es wurde aus {0} herausgenommen und wird dafür getauscht</translation></message>
<message><source>largest first</source>
<translation>größte zuerst</translation></message>
<message><source>smallest first</source>
<translation>kleinste zuerst</translation></message>
<message><source>longest first</source>
<translation>längste zuerst</translation></message>
<message><source>most bytes first</source>
<translation>meiste Bytes zuerst</translation></message>
<message><source>by name</source>
<translation>nach Namen</translation></message>
<message><source>your changes first</source>
<translation>deine Änderungen zuerst</translation></message>
<message><source>One asset a line, with what is known of it in columns</source>
<translation>Ein Asset je Zeile, mit dem, was man davon weiß, in Spalten</translation></message>
<message><source>not grouped</source>
<translation>nicht gruppiert</translation></message>
<message><source>How the wall is grouped</source>
<translation>Wie die Wand gruppiert ist</translation></message>
<message><source>The order within a group</source>
<translation>Die Reihenfolge in einer Gruppe</translation></message>
<message><source>How large the tiles are</source>
<translation>Wie groß die Kacheln sind</translation></message>
<message><source>Tile size</source>
<translation>Kachelgröße</translation></message>
<message><source>{0} of {1}</source>
<translation>{0} von {1}</translation></message>
<message><source>Let go of this: {0}</source>
<translation>Das loslassen: {0}</translation></message>
<message><source>grouped by {0}</source>
<translation>gruppiert nach {0}</translation></message>
<message><source>{0} to {1}{2}</source>
<translation>{0} bis {1}{2}</translation></message>
<message><source>Type what is kept at {0}, {1}; nothing for no limit</source>
<translation>Tippe, was bei {0} gilt, {1}; nichts für keine Grenze</translation></message>
<message><source>Drag across the bars, or one of the two ends; double-click to show all</source>
<translation>Zieh über die Balken oder eins der beiden Enden; ein Doppelklick zeigt alles</translation></message>
<message><source>Colour…</source>
<translation>Farbe…</translation></message>
<message><source>Rank the wall by a colour</source>
<translation>Die Wand nach einer Farbe ordnen</translation></message>
<message><source>Paste</source>
<translation>Einfügen</translation></message>
<message><source>Clear</source>
<translation>Leeren</translation></message>
<message><source>Back to the whole wall</source>
<translation>Zurück zur ganzen Wand</translation></message>
<message><source>A colour to look for</source>
<translation>Eine Farbe, nach der gesucht wird</translation></message>
<message><source>Looks like</source>
<translation>Sieht aus wie</translation></message>
<message><source>Drop a picture, a sound or a crop of the running game; the wall is ranked by likeness.
A crop from the clipboard: {0}</source>
<translation>Zieh ein Bild, ein Geräusch oder einen Ausschnitt des laufenden Spiels hierher; die Wand wird nach Ähnlichkeit geordnet.
Ein Ausschnitt aus der Zwischenablage: {0}</translation></message>
<message><source>Drop a picture, a sound
or a crop of the game</source>
<translation>Zieh ein Bild, ein Geräusch
oder einen Ausschnitt hierher</translation></message>
<message><source>A crop from the clipboard</source>
<translation>Ein Ausschnitt aus der Zwischenablage</translation></message>
<message><source>the crop</source>
<translation>der Ausschnitt</translation></message>
<message><source>Name, your changes first</source>
<translation>Name, deine Änderungen zuerst</translation></message>
<message><source>Pixels</source>
<translation>Pixel</translation></message>
<message><source>Length</source>
<translation>Länge</translation></message>
<message><source>Kind</source>
<translation>Art</translation></message>
<message><source>Format</source>
<translation>Format</translation></message>
<message><source>Folder</source>
<translation>Ordner</translation></message>
<message><source>Columns</source>
<translation>Spalten</translation></message>
<message><source>Click a column to order by it; once more for the other way, where there is one</source>
<translation>Klick auf eine Spalte, um nach ihr zu ordnen; noch einmal für die andere Richtung, wo es eine gibt</translation></message>
<message><source>does not order</source>
<translation>ordnet nicht</translation></message>
<message><source>by hand</source>
<translation>von Hand</translation></message>
<message><source>from its note</source>
<translation>nach seinem Zettel</translation></message>
<message><source>same path</source>
<translation>gleicher Pfad</translation></message>
<message><source>same name</source>
<translation>gleicher Name</translation></message>
<message><source>the same content</source>
<translation>derselbe Inhalt</translation></message>
<message><source>looks alike</source>
<translation>sieht ähnlich aus</translation></message>
<message><source>chosen by you</source>
<translation>von dir gewählt</translation></message>
<message><source>nothing found</source>
<translation>nichts gefunden</translation></message>
<message><source>Swap</source>
<translation>Tauschen</translation></message>
<message><source>Back to the wall; nothing is changed  (Esc)</source>
<translation>Zurück zur Wand; nichts wird geändert  (Esc)</translation></message>
<message><source>Pack it as an archive…</source>
<translation>Als Archiv packen…</translation></message>
<message><source>Make an archive of the folder's files instead</source>
<translation>Aus den Dateien des Ordners stattdessen ein Archiv machen</translation></message>
<message><source>{0} files</source>
<translation>{0} Dateien</translation></message>
<message><source>Matching files with originals</source>
<translation>Dateien Originalen zuordnen</translation></message>
<message><source>Previews</source>
<translation>Vorschaubilder</translation></message>
<message><source>Pairs</source>
<translation>Paare</translation></message>
<message><source>Another original for this file; the most likely ones come first</source>
<translation>Ein anderes Original für diese Datei; die wahrscheinlichsten kommen zuerst</translation></message>
<message><source>Put the pairs that are on into the mod, and make them fit</source>
<translation>Die eingeschalteten Paare in die Mod legen und passend machen</translation></message>
<message><source>The chosen line's original</source>
<translation>Das Original der gewählten Zeile</translation></message>
<message><source>Matching files with originals …</source>
<translation>Dateien werden Originalen zugeordnet …</translation></message>
<message><source>{0} without an original</source>
<translation>{0} ohne Original</translation></message>
<message><source>{0} to be decided</source>
<translation>{0} zu entscheiden</translation></message>
<message><source>choose an original</source>
<translation>wähle ein Original</translation></message>
<message><source>What {0=} is for</source>
<translation>Wofür {0} ist</translation></message>
<message><source>What {0=} are for</source>
<translation>Wofür {0} sind</translation></message>
<message><source>There is no picture, sound or text in this folder</source>
<translation>In diesem Ordner ist kein Bild, kein Geräusch und kein Text</translation></message>
<message><source>Swap {0}</source>
<translation>{0} tauschen</translation></message>
<message><source>nothing like it was found</source>
<translation>nichts Ähnliches wurde gefunden</translation></message>
<message><source>{0}: {1}{2}, each like {3}.</source>
<translation>{0}: {1}{2}, jedes wie {3}.</translation></message>
<message><source>Add it</source>
<translation>Hinzufügen</translation></message>
<message><source>Make it, and fit its files</source>
<translation>Machen und seine Dateien anpassen</translation></message>
<message><source>A whole folder…</source>
<translation>Ein ganzer Ordner…</translation></message>
<message><source>A new thing for every file or sub-folder</source>
<translation>Ein neues Ding für jede Datei oder jeden Unterordner</translation></message>
<message><source>Take back</source>
<translation>Zurücknehmen</translation></message>
<message><source>Take the selected one out of the mod, with all that belongs to it</source>
<translation>Das gewählte aus der Mod nehmen, mit allem, was dazugehört</translation></message>
<message><source>It needs a title or an id.</source>
<translation>Es braucht einen Titel oder eine Kennung.</translation></message>
<message><source> It needs a file for {0}.</source>
<translation> Es braucht eine Datei für {0}.</translation></message>
<message><source>Adding {0=}</source>
<translation>{0} wird hinzugefügt</translation></message>
<message><source>Taking {0=} back</source>
<translation>{0} wird zurückgenommen</translation></message>
<message><source>A folder with files for new things</source>
<translation>Ein Ordner mit Dateien für neue Dinge</translation></message>
<message><source>Kinds of new things</source>
<translation>Arten neuer Dinge</translation></message>
<message><source>New things in this mod</source>
<translation>Neue Dinge in dieser Mod</translation></message>
<message><source>What people read</source>
<translation>Was man liest</translation></message>
<message><source>Title</source>
<translation>Titel</translation></message>
<message><source>what the game calls it</source>
<translation>wie das Spiel es nennt</translation></message>
<message><source>Id</source>
<translation>Kennung</translation></message>
<message><source>Like which one</source>
<translation>Wie welches</translation></message>
<message><source>Nothing new yet.</source>
<translation>Noch nichts Neues.</translation></message>
<message><source>New</source>
<translation>Neu</translation></message>
<message><source>Something that the game does not have yet, like something that it has.</source>
<translation>Etwas, das das Spiel noch nicht hat, wie etwas, das es hat.</translation></message>
<message><source>NEW IN THIS MOD</source>
<translation>NEU IN DIESER MOD</translation></message>
<message><source>{0=} is in the mod</source>
<translation>{0} ist in der Mod</translation></message>
<message><source>New {0=}</source>
<translation>Neu: {0}</translation></message>
<message><source>New: {0}</source>
<translation>Neu: {0}</translation></message>
<message><source>Take {0=} back</source>
<translation>{0} zurücknehmen</translation></message>
<message><source>{0=} is out of the mod; undo brings it back</source>
<translation>{0} ist aus der Mod; Rückgängig bringt es zurück</translation></message>
<message><source>Add them all</source>
<translation>Alle hinzufügen</translation></message>
<message><source>Place for {0=}</source>
<translation>Platz für {0}</translation></message>
<message><source>Drop a file here, or click to choose one; Del takes it out again</source>
<translation>Zieh eine Datei hierher, oder klick, um eine zu wählen; Entf nimmt sie wieder heraus</translation></message>
<message><source>A look at it</source>
<translation>Ein Blick darauf</translation></message>
<message><source>Files for {0=}</source>
<translation>Dateien für {0}</translation></message>
<message><source>as the other's, or drop</source>
<translation>wie beim anderen, oder ziehen</translation></message>
<message><source>left out, or drop</source>
<translation>weggelassen, oder ziehen</translation></message>
<message><source>drop a file here</source>
<translation>Datei hierher ziehen</translation></message>
<message><source>drop files here</source>
<translation>Dateien hierher ziehen</translation></message>
<message><source>drop a row of colours</source>
<translation>Farbreihe hierher ziehen</translation></message>
<message><source>All words have to be in the path (or number), and none with a minus before it</source>
<translation>Alle Wörter müssen im Pfad (oder in der Nummer) stehen, und keins mit einem Minus davor</translation></message>
<message><source>{0}, {1} of {2}, {3}</source>
<translation>{0}, {1} von {2}, {3}</translation></message>
<message><source>Name or path</source>
<translation>Name oder Pfad</translation></message>
<message><source>Show only what this mod swaps</source>
<translation>Nur zeigen, was diese Mod tauscht</translation></message>
<message><source>with kin</source>
<translation>mit Verwandten</translation></message>
<message><source>Show only what the game has several times: at other sizes, places or rates</source>
<translation>Nur zeigen, was das Spiel mehrmals hat: in anderer Größe, Rate oder an anderer Stelle</translation></message>
<message><source>Show everything</source>
<translation>Alles zeigen</translation></message>
<message><source>Click to show only this; click again to show all</source>
<translation>Klick, um nur das zu zeigen; noch einmal, um wieder alles zu zeigen</translation></message>
<message><source>not chosen</source>
<translation>nicht gewählt</translation></message>
<message><source>Pixel size</source>
<translation>Pixelgröße</translation></message>
<message><source>File size</source>
<translation>Dateigröße</translation></message>
<message><source>LOOKS OR SOUNDS LIKE</source>
<translation>SIEHT ODER KLINGT WIE</translation></message>
<message><source>PIXEL SIZE</source>
<translation>PIXELGRÖSSE</translation></message>
<message><source>FILE SIZE</source>
<translation>DATEIGRÖSSE</translation></message>
<message><source>SHOW ONLY</source>
<translation>NUR ZEIGEN</translation></message>
<message><source>swapped  {0}</source>
<translation>getauscht  {0}</translation></message>
<message><source>like {0=}</source>
<translation>wie {0}</translation></message>
<message><source>{0}; {1} chosen</source>
<translation>{0}; {1} gewählt</translation></message>
<message><source>at the top</source>
<translation>oben</translation></message>
<message><source>Point Furnel at the game's folder once. It reads what is there and never writes to the game's own files.</source>
<translation>Zeig Furnel einmal den Ordner des Spiels. Es liest, was da ist, und schreibt nie in die eigenen Dateien des Spiels.</translation></message>
<message><source>Nothing passes the sieve. Clear it with {0}.</source>
<translation>Nichts kommt durch das Sieb. Leere es mit {0}.</translation></message>
<message><source>Looking for its uses</source>
<translation>Nachsehen, wo es gebraucht wird</translation></message>
<message><source>Which game do you want to change?</source>
<translation>Welches Spiel willst du ändern?</translation></message>
<message><source>Looking for the nearest</source>
<translation>Nach dem Nächsten suchen</translation></message>
<message><source>Furnel is still learning what everything looks like.</source>
<translation>Furnel lernt noch, wie alles aussieht.</translation></message>
<message><source>Looking for {0=}</source>
<translation>Suche nach {0}</translation></message>
<message><source>Reading the spec</source>
<translation>Die Vorgabe lesen</translation></message>
<message><source>The sieve</source>
<translation>Das Sieb</translation></message>
<message><source>The spec card</source>
<translation>Die Karte</translation></message>
<message><source>Reading the definitions</source>
<translation>Die Definitionen lesen</translation></message>
<message><source>Furnel is still learning what everything looks like; the wall follows</source>
<translation>Furnel lernt noch, wie alles aussieht; die Wand folgt</translation></message>
<message><source>Go on with a mod that you began</source>
<translation>Mit einer begonnenen Mod weitermachen</translation></message>
<message><source>Nothing has “{0}”. This is what has “{1}”:</source>
<translation>Nichts hat „{0}“. Das hier hat „{1}“:</translation></message>
<message><source>There is no sound device: everything but hearing works</source>
<translation>Es gibt kein Tongerät: alles außer Hören geht</translation></message>
<message><source>{0=} and its kin</source>
<translation>{0} und seine Verwandten</translation></message>
<message><source>most like {0=}</source>
<translation>am ähnlichsten: {0}</translation></message>
<message><source>As the game has it</source>
<translation>Wie das Spiel es hat</translation></message>
<message><source>The same bytes, for tools that read the game's own formats</source>
<translation>Dieselben Bytes, für Werkzeuge, die die Formate des Spiels lesen</translation></message>
<message><source>Pictures as PNG</source>
<translation>Bilder als PNG</translation></message>
<message><source>For every paint program; sounds and texts stay as they are</source>
<translation>Für jedes Malprogramm; Geräusche und Texte bleiben, wie sie sind</translation></message>
<message><source>Sounds as WAV</source>
<translation>Geräusche als WAV</translation></message>
<message><source>For every sound editor; pictures and texts stay as they are</source>
<translation>Für jedes Tonprogramm; Bilder und Texte bleiben, wie sie sind</translation></message>
<message><source>Folders are kept, and a note remembers where each file came from:
dropped back later, it finds its original.</source>
<translation>Ordner bleiben, und ein Zettel merkt sich, woher jede Datei kam:
später zurückgezogen, findet sie ihr Original.</translation></message>
<message><source>Take out {0=}</source>
<translation>{0} herausnehmen</translation></message>
<message><source>The same at other sizes, places or rates</source>
<translation>Dasselbe in anderer Größe, Rate oder an anderer Stelle</translation></message>
<message><source>Nothing is written</source>
<translation>Nichts wird geschrieben</translation></message>
<message><source>Choose a folder…</source>
<translation>Einen Ordner wählen…</translation></message>
<message><source>Where to put them</source>
<translation>Wohin sie kommen</translation></message>
<message><source>with its {0} kin</source>
<translation>mit seinen {0} Verwandten</translation></message>
<message><source>with its kin</source>
<translation>mit seinen Verwandten</translation></message>
<message><source>{0} LUFS</source>
<translation>{0} LUFS</translation></message>
<message><source>   {0} bpm</source>
<translation>   {0} bpm</translation></message>
<message><source>Add songs…</source>
<translation>Lieder hinzufügen…</translation></message>
<message><source>Choose files; an album's folder can be dropped here, too</source>
<translation>Dateien wählen; auch der Ordner eines Albums lässt sich hierher ziehen</translation></message>
<message><source>Listening to tunes</source>
<translation>Stücke anhören</translation></message>
<message><source>Listening to songs</source>
<translation>Lieder anhören</translation></message>
<message><source>{0} tunes, {1} in all</source>
<translation>{0} Stücke, zusammen {1}</translation></message>
<message><source>Tunes and songs</source>
<translation>Stücke und Lieder</translation></message>
<message><source>Drag a song onto another line, or move it with Alt and the arrow keys; Backspace leaves it out</source>
<translation>Zieh ein Lied auf eine andere Zeile, oder beweg es mit Alt und den Pfeiltasten; Rücktaste lässt es aus</translation></message>
<message><source>one song more than the game has tunes</source>
<translation>ein Lied mehr, als das Spiel Stücke hat</translation></message>
<message><source>{0} bpm</source>
<translation>{0} bpm</translation></message>
<message><source>Put the songs into the tunes' places, and make them fit</source>
<translation>Die Lieder an die Plätze der Stücke legen und passend machen</translation></message>
<message><source>Songs go to the tunes in this order; drag them to change it.</source>
<translation>Lieder kommen in dieser Reihenfolge zu den Stücken; zieh sie, um sie zu ändern.</translation></message>
<message><source>The game's tunes</source>
<translation>Die Stücke des Spiels</translation></message>
<message><source>Listening to the game's tunes …</source>
<translation>Die Stücke des Spiels werden angehört …</translation></message>
<message><source>There is no sound among these files: drop WAV, FLAC, Ogg or MP3</source>
<translation>Unter diesen Dateien ist kein Ton: zieh WAV, FLAC, Ogg oder MP3 hierher</translation></message>
<message><source>{0} songs</source>
<translation>{0} Lieder</translation></message>
<message><source>worth a look</source>
<translation>einen Blick wert</translation></message>
<message><source>that will not do</source>
<translation>das geht nicht</translation></message>
<message><source>Sounds</source>
<translation>Geräusche</translation></message>
<message><source>Songs</source>
<translation>Lieder</translation></message>
<message><source>repeats whole</source>
<translation>wiederholt sich ganz</translation></message>
<message><source>repeats from {0}</source>
<translation>wiederholt sich ab {0}</translation></message>
<message><source>drop songs</source>
<translation>Lieder hierher ziehen</translation></message>
<message><source>This game has no music that Furnel knows of</source>
<translation>Dieses Spiel hat keine Musik, die Furnel kennt</translation></message>
<message><source>{0}
{1}, {2}, from {3=}
Drop a file here to swap it</source>
<translation>{0}
{1}, {2}, aus {3}
Zieh eine Datei hierher, um es zu tauschen</translation></message>
<message><source>the most alike</source>
<translation>das ähnlichste</translation></message>
<message><source>{0} as alike as the first</source>
<translation>{0} so ähnlich wie das erste</translation></message>
<message><source>from tile to tile</source>
<translation>von Kachel zu Kachel</translation></message>
<message><source>the first and the last</source>
<translation>zur ersten und letzten</translation></message>
<message><source>open what is chosen</source>
<translation>öffnen, was gewählt ist</translation></message>
<message><source>Wheel</source>
<translation>Rad</translation></message>
<message><source>Wall</source>
<translation>Wand</translation></message>
<message><source>{0} marked</source>
<translation>{0} markiert</translation></message>
<message><source>{0} tiles, none chosen</source>
<translation>{0} Kacheln, keine gewählt</translation></message>
<message><source>{0=} has {1}</source>
<translation>{0} hat {1}</translation></message>
<message><source>Figure {0} into {1}</source>
<translation>Figur {0} in {1}</translation></message>
<message><source>Mirror</source>
<translation>Spiegeln</translation></message>
<message><source>Hold</source>
<translation>Halten</translation></message>
<message><source>Empty</source>
<translation>Leeren</translation></message>
<message><source>The original's</source>
<translation>Die des Originals</translation></message>
<message><source>Change #{0}</source>
<translation>#{0} ändern</translation></message>
<message><source>Change {0} colours</source>
<translation>{0} Farben ändern</translation></message>
<message><source>Save frames</source>
<translation>Bilder speichern</translation></message>
<message><source>{0}, the first is {1=}</source>
<translation>{0}, das erste ist {1}</translation></message>
<message><source>{n} frame</source>
<translation>{n} Bild</translation></message>
<message><source>{n} frames</source>
<translation>{n} Bilder</translation></message>
<message><source>Put figure {0} here</source>
<translation>Figur {0} hierher setzen</translation></message>
<message><source>Show its figure in the source</source>
<translation>Ihre Figur in der Quelle zeigen</translation></message>
<message><source>Take the colour here</source>
<translation>Die Farbe hier nehmen</translation></message>
<message><source>Put figure {0} into the chosen cells</source>
<translation>Figur {0} in die gewählten Zellen setzen</translation></message>
<message><source>Choose the {0} that it is in</source>
<translation>Die {0} wählen, in denen sie ist</translation></message>
<message><source>Fill anew</source>
<translation>Neu füllen</translation></message>
<message><source>Make it {0} times as large</source>
<translation>Auf das {0}-Fache vergrößern</translation></message>
<message><source>Move {0}</source>
<translation>{0} bewegen</translation></message>
<message><source>Colours</source>
<translation>Farben</translation></message>
<message><source>Instead of #{0}</source>
<translation>Statt #{0}</translation></message>
<message><source>Changed in {0}</source>
<translation>In {0} geändert</translation></message>
<message><source>The pencil's colour</source>
<translation>Die Farbe des Stifts</translation></message>
<message><source>Animation as GIF…</source>
<translation>Bewegung als GIF…</translation></message>
<message><source>Animation as APNG…</source>
<translation>Bewegung als APNG…</translation></message>
<message><source>Numbered PNG files…</source>
<translation>Nummerierte PNG-Dateien…</translation></message>
<message><source>OpenRaster, a layer a frame…</source>
<translation>OpenRaster, jedes Bild eine Ebene…</translation></message>
<message><source>Saving frames</source>
<translation>Bilder speichern</translation></message>
<message><source>Fill</source>
<translation>Füllen</translation></message>
<message><source>Paint {0}</source>
<translation>{0} malen</translation></message>
<message><source>Instead of #{0} and its ramp</source>
<translation>Statt #{0} und ihrer Reihe</translation></message>
<message><source>{n} cell</source>
<translation>{n} Zelle</translation></message>
<message><source>{n} cells</source>
<translation>{n} Zellen</translation></message>
<message><source>Pencil</source>
<translation>Stift</translation></message>
<message><source>{n} picture</source>
<translation>{n} Bild</translation></message>
<message><source>{n} pictures</source>
<translation>{n} Bilder</translation></message>
<message><source>mirror all</source>
<translation>alle spiegeln</translation></message>
<message><source>Resize</source>
<translation>Größe ändern</translation></message>
<message><source>{n} pixel</source>
<translation>{n} Pixel</translation></message>
<message><source>{n} pixels</source>
<translation>{n} Pixel</translation></message>
<message><source>Mirror all</source>
<translation>Alle spiegeln</translation></message>
<message><source>Lock</source>
<translation>Sperren</translation></message>
<message><source>Unlock</source>
<translation>Freigeben</translation></message>
<message><source>The game has no {0}</source>
<translation>Das Spiel hat kein {0}</translation></message>
<message><source>This kind of file has no bench yet; the build takes it as it is</source>
<translation>Für diese Art Datei gibt es noch keine Werkbank; der Build nimmt sie, wie sie ist</translation></message>
<message><source>There is no result yet</source>
<translation>Noch gibt es kein Ergebnis</translation></message>
<message><source>from cell to cell</source>
<translation>von Zelle zu Zelle</translation></message>
<message><source>Shift and arrows</source>
<translation>Umschalt und Pfeile</translation></message>
<message><source>nudge by a pixel of the drawing</source>
<translation>um ein Pixel der Zeichnung rücken</translation></message>
<message><source>hold the pose</source>
<translation>die Pose halten</translation></message>
<message><source>keep the original cell</source>
<translation>die Zelle des Originals behalten</translation></message>
<message><source>larger and smaller</source>
<translation>größer und kleiner</translation></message>
<message><source>Backspace</source>
<translation>Rücktaste</translation></message>
<message><source>empty it</source>
<translation>leeren</translation></message>
<message><source>Sheet, {0}</source>
<translation>Bogen, {0}</translation></message>
<message><source>Take the game's {0}</source>
<translation>Das des Spiels nehmen: {0}</translation></message>
<message><source>and {0} more</source>
<translation>und {0} weitere</translation></message>
<message><source>Nothing yet: it is the game's own, and is not built.</source>
<translation>Noch nichts: es ist das des Spiels selbst und wird nicht gebaut.</translation></message>
<message><source>Nothing in the game's definitions names it</source>
<translation>Nichts in den Definitionen des Spiels nennt es</translation></message>
<message><source>Search the records</source>
<translation>In den Datensätzen suchen</translation></message>
<message><source>Text</source>
<translation>Text</translation></message>
<message><source>New like this…</source>
<translation>Neu wie dieser…</translation></message>
<message><source>A new record with all values of this one</source>
<translation>Ein neuer Datensatz mit allen Werten von diesem</translation></message>
<message><source>Copy values from…</source>
<translation>Werte kopieren von…</translation></message>
<message><source>All values of another record, but for its name</source>
<translation>Alle Werte eines anderen Datensatzes, bis auf den Namen</translation></message>
<message><source>Change several…</source>
<translation>Mehrere ändern…</translation></message>
<message><source>Set, multiply or add to a value of all chosen records</source>
<translation>Einen Wert aller gewählten Datensätze setzen, malnehmen oder erhöhen</translation></message>
<message><source>Used by</source>
<translation>Gebraucht von</translation></message>
<message><source>Every place in the game's definitions that names this record</source>
<translation>Jede Stelle in den Definitionen des Spiels, die diesen Datensatz nennt</translation></message>
<message><source>Take the game's</source>
<translation>Das des Spiels nehmen</translation></message>
<message><source>The whole record as the game has it</source>
<translation>Den ganzen Datensatz, wie das Spiel ihn hat</translation></message>
<message><source>Set {0}</source>
<translation>{0} setzen</translation></message>
<message><source>This cannot be taken as it is: it stays here, and nothing is lost.</source>
<translation>So lässt sich das nicht nehmen: es bleibt hier, und nichts geht verloren.</translation></message>
<message><source>Change {0} values</source>
<translation>{0} Werte ändern</translation></message>
<message><source>Table of records</source>
<translation>Tabelle der Datensätze</translation></message>
<message><source>The text itself, to be read and edited</source>
<translation>Der Text selbst, zum Lesen und Bearbeiten</translation></message>
<message><source> alone, of {0} that are chosen</source>
<translation> allein, von {0} gewählten</translation></message>
<message><source>Add {0} to {1=}</source>
<translation>{0} zu {1} hinzufügen</translation></message>
<message><source>New {0} like {1=}</source>
<translation>Neu: {0} wie {1}</translation></message>
<message><source>Copy all values from {0} to {1=}</source>
<translation>Alle Werte von {0} nach {1} kopieren</translation></message>
<message><source>  taken out</source>
<translation>  herausgenommen</translation></message>
<message><source>Both pictures from near to far</source>
<translation>Beide Bilder von nah nach fern</translation></message>
<message><source>near to far, in the game's own levels</source>
<translation>von nah nach fern, in den Stufen des Spiels</translation></message>
<message><source>level {0}</source>
<translation>Stufe {0}</translation></message>
<message><source>the game does not say</source>
<translation>das Spiel sagt es nicht</translation></message>
<message><source>Distances</source>
<translation>Entfernungen</translation></message>
<message><source>Drag the corners: up and down for the volume, left and right for where it fades and falls silent. Drag the listener (Left, Right) to hear it from there. Up and Down set the volume, Shift or Alt with Left and Right the distances.</source>
<translation>Zieh die Ecken: auf und ab für die Lautstärke, links und rechts dafür, wo es leiser wird und verstummt. Zieh den Hörer (Links, Rechts), um es von dort zu hören. Auf und Ab stellen die Lautstärke, Umschalt oder Alt mit Links und Rechts die Entfernungen.</translation></message>
<message><source>From how far it is heard</source>
<translation>Aus welcher Entfernung man es hört</translation></message>
<message><source>{0}: {1}, fades from {2} {3}, silent at {4} {5}</source>
<translation>{0}: {1}, leiser ab {2} {3}, stumm bei {4} {5}</translation></message>
<message><source>at {0} {1}: {2}</source>
<translation>bei {0} {1}: {2}</translation></message>
<message><source>at {0} {1}: silent</source>
<translation>bei {0} {1}: stumm</translation></message>
<message><source>The game does not say</source>
<translation>Das Spiel sagt es nicht</translation></message>
<message><source>the game's</source>
<translation>des Spiels</translation></message>
<message><source>Colours weigh</source>
<translation>Farben wiegen</translation></message>
<message><source>File</source>
<translation>Datei</translation></message>
<message><source>Codec</source>
<translation>Codec</translation></message>
<message><source>To keep something else than the original has, pick its point above and choose Keep yours.</source>
<translation>Um etwas anderes zu behalten, als das Original hat, wähle oben seinen Punkt und dann „Deins behalten“.</translation></message>
<message><source>as seen</source>
<translation>wie gesehen</translation></message>
<message><source>Encode</source>
<translation>Kodieren</translation></message>
<message><source>Show or hide what can be chosen</source>
<translation>Zeigen oder verbergen, was sich wählen lässt</translation></message>
<message><source>Encoding quality</source>
<translation>Güte der Kodierung</translation></message>
<message><source>How many bits it may take</source>
<translation>Wie viele Bits es brauchen darf</translation></message>
<message><source>How much time the encoder takes to come close</source>
<translation>Wie viel Zeit sich der Kodierer nimmt, um nahe heranzukommen</translation></message>
<message><source>Levels</source>
<translation>Stufen</translation></message>
<message><source>Levels made as</source>
<translation>Stufen gemacht als</translation></message>
<message><source>{0} levels</source>
<translation>{0} Stufen</translation></message>
<message><source> as {0}</source>
<translation> als {0}</translation></message>
<message><source>Left, Right</source>
<translation>Links, Rechts</translation></message>
<message><source>from sound to sound</source>
<translation>von Geräusch zu Geräusch</translation></message>
<message><source>Insert</source>
<translation>Einfg</translation></message>
<message><source>choose the files of all takes</source>
<translation>die Dateien aller Aufnahmen wählen</translation></message>
<message><source>take it out of the event</source>
<translation>aus dem Ereignis nehmen</translation></message>
<message><source>Sounds of the event</source>
<translation>Geräusche des Ereignisses</translation></message>
<message><source>Drop {0} to {1} files here, or click (Insert) to choose them: they become the sounds that the event plays in turn. Backspace, or the right button, takes one out of the event.</source>
<translation>Zieh {0} bis {1} Dateien hierher, oder klick (Einfg), um sie zu wählen: sie werden die Geräusche, die das Ereignis der Reihe nach spielt. Rücktaste oder die rechte Taste nimmt eins heraus.</translation></message>
<message><source>plays {0} sounds in turn</source>
<translation>spielt {0} Geräusche der Reihe nach</translation></message>
<message><source>Drop all takes here, or click to choose them</source>
<translation>Alle Takes hierher, oder klick</translation></message>
<message><source>All takes of the event</source>
<translation>Alle Aufnahmen des Ereignisses</translation></message>
<message><source>Take it out of the event</source>
<translation>Aus dem Ereignis nehmen</translation></message>
<message><source>, the game's has {0}</source>
<translation>, das des Spiels hat {0}</translation></message>
<message><source>Figures of the source</source>
<translation>Figuren der Quelle</translation></message>
<message><source>Drag a figure onto a cell, or choose cells and press Enter on a figure</source>
<translation>Zieh eine Figur auf eine Zelle, oder wähle Zellen und drück auf einer Figur Eingabe</translation></message>
<message><source>{0=} dB</source>
<translation>{0} dB</translation></message>
<message><source>{0} ms</source>
<translation>{0} ms</translation></message>
<message><source>{0} dB</source>
<translation>{0} dB</translation></message>
<message><source>Formats</source>
<translation>Formate</translation></message>
<message><source>Click a format to see what it would look like on the bench; click it again to go back</source>
<translation>Klick auf ein Format, um zu sehen, wie es auf der Werkbank aussähe; noch einmal, um zurückzukehren</translation></message>
<message><source>Move the loop</source>
<translation>Die Schleife verschieben</translation></message>
<message><source>Move a layer</source>
<translation>Eine Schicht verschieben</translation></message>
<message><source>Take {0} out of {1=}</source>
<translation>{0} aus {1} nehmen</translation></message>
<message><source>Take another part of the source</source>
<translation>Einen anderen Teil der Quelle nehmen</translation></message>
<message><source>{0} is the game's own: drop a file on it in Find, or all takes on the event</source>
<translation>{0} ist das des Spiels: zieh in Finden eine Datei darauf, oder alle Aufnahmen auf das Ereignis</translation></message>
<message><source>{0=} needs {1} at least</source>
<translation>{0} braucht mindestens {1}</translation></message>
<message><source>Change how far {0=} is heard</source>
<translation>Ändern, wie weit {0} zu hören ist</translation></message>
<message><source>Drawing the pitches</source>
<translation>Die Tonhöhen zeichnen</translation></message>
<message><source>{n} sound</source>
<translation>{n} Geräusch</translation></message>
<message><source>{n} sounds</source>
<translation>{n} Geräusche</translation></message>
<message><source>Swap them too</source>
<translation>Auch sie tauschen</translation></message>
<message><source>The same source, made to fit each of them; undo takes it back at once</source>
<translation>Dieselbe Quelle, für jedes davon angepasst; Rückgängig nimmt alles auf einmal zurück</translation></message>
<message><source>Not these</source>
<translation>Diese nicht</translation></message>
<message><source>Do not ask again for this one</source>
<translation>Bei diesem nicht noch einmal fragen</translation></message>
<message><source>The game has the same {0}, in {1}: swap {2} for the same source?</source>
<translation>Das Spiel hat dasselbe {0}, in {1}: {2} gegen dieselbe Quelle tauschen?</translation></message>
<message><source>Swap it too</source>
<translation>Auch das tauschen</translation></message>
<message><source>Swap these {0} too</source>
<translation>Auch diese {0} tauschen</translation></message>
<message><source>{n} more time</source>
<translation>noch {n}-mal</translation></message>
<message><source>{n} more times</source>
<translation>noch {n}-mal</translation></message>
<message><source>more time</source>
<translation>more time</translation></message>
<message><source>closer and wider</source>
<translation>näher und weiter</translation></message>
<message><source>Home, double-click</source>
<translation>Pos1, Doppelklick</translation></message>
<message><source>all of it</source>
<translation>alles</translation></message>
<message><source>along the sound</source>
<translation>am Ton entlang</translation></message>
<message><source>Drag</source>
<translation>Ziehen</translation></message>
<message><source>an edge or a layer; below the sounds or with the middle button the view</source>
<translation>ein Rand oder eine Schicht; unter den Tönen oder mit der mittleren Taste die Ansicht</translation></message>
<message><source>{0} dBTP</source>
<translation>{0} dBTP</translation></message>
<message><source>Lanes</source>
<translation>Spuren</translation></message>
<message><source>Click to play from there; the wheel zooms, Shift and the wheel move along, Home shows all</source>
<translation>Klick, um ab dort zu hören; das Rad vergrößert, Umschalt und Rad gehen entlang, Pos1 zeigt alles</translation></message>
<message><source>layer {0}</source>
<translation>Schicht {0}</translation></message>
<message><source>from level to level</source>
<translation>von Stufe zu Stufe</translation></message>
<message><source>Click a level to see it on the bench, as the game shows it from afar</source>
<translation>Klick auf eine Stufe, um sie auf der Werkbank zu sehen, wie das Spiel sie von fern zeigt</translation></message>
<message><source>Frames</source>
<translation>Frames</translation></message>
<message><source>Integrated</source>
<translation>Im Ganzen</translation></message>
<message><source>Range</source>
<translation>Umfang</translation></message>
<message><source>True peak</source>
<translation>Wahre Spitze</translation></message>
<message><source>Sample peak</source>
<translation>Sample-Spitze</translation></message>
<message><source>Silence before</source>
<translation>Stille davor</translation></message>
<message><source>Silence behind</source>
<translation>Stille dahinter</translation></message>
<message><source>Clipped</source>
<translation>Übersteuert</translation></message>
<message><source>Left to right</source>
<translation>Links nach rechts</translation></message>
<message><source>Tempo</source>
<translation>Tempo</translation></message>
<message><source>Meter</source>
<translation>Takt</translation></message>
<message><source>First beat</source>
<translation>Erster Schlag</translation></message>
<message><source>Key, perhaps</source>
<translation>Tonart, vielleicht</translation></message>
<message><source>Loop from</source>
<translation>Schleife ab</translation></message>
<message><source>Loop to</source>
<translation>Schleife bis</translation></message>
<message><source>Seam</source>
<translation>Naht</translation></message>
<message><source>{0} LU</source>
<translation>{0} LU</translation></message>
<message><source>{0=} LUFS</source>
<translation>{0} LUFS</translation></message>
<message><source>clicks, {0} ×</source>
<translation>knackt, {0} ×</translation></message>
<message><source>{0} dBFS</source>
<translation>{0} dBFS</translation></message>
<message><source>{0} beats</source>
<translation>{0} Schläge</translation></message>
<message><source>Measures</source>
<translation>Messwerte</translation></message>
<message><source>{0} {1}, yours {2}</source>
<translation>{0} {1}, deins {2}</translation></message>
<message><source>Momentary loudness above, sample peak below; the line holds the highest peak</source>
<translation>Oben die momentane Lautheit, unten die Sample-Spitze; die Linie hält die höchste</translation></message>
<message><source>no sound device</source>
<translation>kein Tongerät</translation></message>
<message><source>Drag one of yours onto another; with Shift its whole ramp</source>
<translation>Zieh eine von deinen auf eine andere; mit Umschalt ihre ganze Reihe</translation></message>
<message><source>Colours of both sheets</source>
<translation>Farben beider Bögen</translation></message>
<message><source>Change…</source>
<translation>Ändern…</translation></message>
<message><source>Another colour in its place, everywhere  (Enter)</source>
<translation>Überall eine andere Farbe an ihre Stelle  (Eingabe)</translation></message>
<message><source>Change its ramp…</source>
<translation>Ihre Reihe ändern…</translation></message>
<message><source>All colours of its hue with it, from dark to light</source>
<translation>Alle Farben ihres Tons mit, von dunkel nach hell</translation></message>
<message><source>Keep it exactly: what drifted from it is brought back</source>
<translation>Genau behalten: was davon abgewichen ist, wird zurückgebracht</translation></message>
<message><source>Paint with it</source>
<translation>Damit malen</translation></message>
<message><source>Take it for the pencil</source>
<translation>Für den Stift nehmen</translation></message>
<message><source>#{0}, {1} pixels</source>
<translation>#{0}, {1} Pixel</translation></message>
<message><source>{0}: more than 256 colours</source>
<translation>{0}: mehr als 256 Farben</translation></message>
<message><source>From afar</source>
<translation>Von fern</translation></message>
<message><source>Tones</source>
<translation>Töne</translation></message>
<message><source>In the game</source>
<translation>Im Spiel</translation></message>
<message><source>How the two are compared</source>
<translation>Wie die beiden verglichen werden</translation></message>
<message><source>How many times differences are enlarged</source>
<translation>Wie vielfach Unterschiede vergrößert sind</translation></message>
<message><source>Which channels are shown</source>
<translation>Welche Kanäle zu sehen sind</translation></message>
<message><source>See how it repeats</source>
<translation>Sehen, wie es sich wiederholt</translation></message>
<message><source>What is shown below the pictures</source>
<translation>Was unter den Bildern zu sehen ist</translation></message>
<message><source>As large as fits  (0)</source>
<translation>So groß es passt  (0)</translation></message>
<message><source>One to one</source>
<translation>Eins zu eins</translation></message>
<message><source>How large it is seen: the wheel zooms, dragging moves it, a double-click fits it</source>
<translation>Wie groß man es sieht: das Rad vergrößert, Ziehen bewegt es, ein Doppelklick passt es ein</translation></message>
<message><source>yours as {0}</source>
<translation>deins als {0}</translation></message>
<message><source>Difference</source>
<translation>Unterschied</translation></message>
<message><source>yours {0} × {1}</source>
<translation>deins {0} × {1}</translation></message>
<message><source>no alpha</source>
<translation>kein Alpha</translation></message>
<message><source>Wipe</source>
<translation>Wischen</translation></message>
<message><source>Side by side</source>
<translation>Nebeneinander</translation></message>
<message><source>Blink</source>
<translation>Blinken</translation></message>
<message><source>moves the picture, or the wipe by its line</source>
<translation>bewegt das Bild, oder an ihrer Linie die Wischgrenze</translation></message>
<message><source>the wipe</source>
<translation>die Wischgrenze</translation></message>
<message><source>The two differ in size: fit the swap first, then compare pixel by pixel.</source>
<translation>Die beiden sind nicht gleich groß: pass den Tausch zuerst an, dann vergleiche Pixel um Pixel.</translation></message>
<message><source>difference, {0}</source>
<translation>Unterschied, {0}</translation></message>
<message><source>Picture bench</source>
<translation>Bilder-Werkbank</translation></message>
<message><source>four times enlarged</source>
<translation>vierfach vergrößert</translation></message>
<message><source>sixteen times enlarged</source>
<translation>sechzehnfach vergrößert</translation></message>
<message><source>Pause</source>
<translation>Pause</translation></message>
<message><source>{0}, playing</source>
<translation>{0}, bewegt</translation></message>
<message><source>Animation</source>
<translation>Bewegung</translation></message>
<message><source>Stop and go on</source>
<translation>Anhalten und weiter</translation></message>
<message><source>One frame back</source>
<translation>Ein Bild zurück</translation></message>
<message><source>One frame on</source>
<translation>Ein Bild vor</translation></message>
<message><source>Frame</source>
<translation>Bild</translation></message>
<message><source>Frame by frame</source>
<translation>Bild um Bild</translation></message>
<message><source>Frames a second</source>
<translation>Bilder je Sekunde</translation></message>
<message><source>The frames before and after, faintly behind</source>
<translation>Die Bilder davor und danach, schwach dahinter</translation></message>
<message><source>Play it to its end and back again</source>
<translation>Bis ans Ende und wieder zurück spielen</translation></message>
<message><source>Where the original's feet stand</source>
<translation>Wo die Füße des Originals stehen</translation></message>
<message><source>{0} a second</source>
<translation>{0} je Sekunde</translation></message>
<message><source>Trail</source>
<translation>Spur</translation></message>
<message><source>To and fro</source>
<translation>Hin und her</translation></message>
<message><source>Floor</source>
<translation>Boden</translation></message>
<message><source>{0=}, {1} frames</source>
<translation>{0}, {1} Bilder</translation></message>
<message><source>all at once</source>
<translation>alle zugleich</translation></message>
<message><source>worst first</source>
<translation>schlimmste zuerst</translation></message>
<message><source>by kind</source>
<translation>nach Art</translation></message>
<message><source>from swap to swap</source>
<translation>von Tausch zu Tausch</translation></message>
<message><source>sort anew</source>
<translation>neu ordnen</translation></message>
<message><source>Swaps stand otherwise than when they were sorted</source>
<translation>Tausche stehen anders als beim letzten Ordnen</translation></message>
<message><source>Look for a swap</source>
<translation>Einen Tausch suchen</translation></message>
<message><source>Swaps</source>
<translation>Tausche</translation></message>
<message><source>Order of the swaps</source>
<translation>Reihenfolge der Tausche</translation></message>
<message><source>no swaps</source>
<translation>keine Tausche</translation></message>
<message><source>No swaps yet</source>
<translation>Noch keine Tausche</translation></message>
<message><source>[heads] and key = value</source>
<translation>[Köpfe] und Schlüssel = Wert</translation></message>
<message><source>(head value …)</source>
<translation>(Kopf Wert …)</translation></message>
<message><source>head name { … }</source>
<translation>Kopf Name { … }</translation></message>
<message><source>further in is part of it</source>
<translation>was eingerückt ist, gehört dazu</translation></message>
<message><source>a record on each line</source>
<translation>ein Datensatz je Zeile</translation></message>
<message><source>name = value in a program</source>
<translation>Name = Wert in einem Programm</translation></message>
<message><source>Read them so</source>
<translation>So lesen</translation></message>
<message><source>Write it into the game's profile, and open the game anew</source>
<translation>Ins Profil des Spiels schreiben und das Spiel neu öffnen</translation></message>
<message><source>Only as text</source>
<translation>Nur als Text</translation></message>
<message><source>No records: texts of this ending are read and changed as texts</source>
<translation>Keine Datensätze: Texte dieser Endung werden als Texte gelesen und geändert</translation></message>
<message><source>Trying ways to read it</source>
<translation>Leseweisen werden versucht</translation></message>
<message><source>Keeping how {0} is read</source>
<translation>Wird behalten: wie {0} gelesen wird</translation></message>
<message><source>Ways to read it</source>
<translation>Leseweisen</translation></message>
<message><source>What is read</source>
<translation>Was gelesen wird</translation></message>
<message><source>How {0} is read</source>
<translation>Wie {0} gelesen wird</translation></message>
<message><source>{0} of this ending; some of them were tried</source>
<translation>{0} dieser Endung; einige davon wurden versucht</translation></message>
<message><source>It is written as</source>
<translation>Geschrieben als</translation></message>
<message><source>Sign</source>
<translation>Zeichen</translation></message>
<message><source>Comments</source>
<translation>Kommentare</translation></message>
<message><source>Files</source>
<translation>Dateien</translation></message>
<message><source>Letters</source>
<translation>Buchstaben</translation></message>
<message><source>None of the shapes is like these texts: they are read as texts.</source>
<translation>Keine der Formen gleicht diesen Texten: Sie werden als Texte gelesen.</translation></message>
<message><source>{n} text</source>
<translation>{n} Text</translation></message>
<message><source>{n} texts</source>
<translation>{n} Texte</translation></message>
<message><source>Return or Tab</source>
<translation>Eingabe oder Tab</translation></message>
<message><source>takes what was typed</source>
<translation>übernimmt das Getippte</translation></message>
<message><source>Up or Down</source>
<translation>Auf oder Ab</translation></message>
<message><source>a number a step more or less</source>
<translation>eine Zahl um einen Schritt mehr oder weniger</translation></message>
<message><source>Values of the record</source>
<translation>Werte des Eintrags</translation></message>
<message><source>Add a value…</source>
<translation>Einen Wert hinzufügen…</translation></message>
<message><source>taken out; the game has {0=}</source>
<translation>herausgenommen; das Spiel hat {0}</translation></message>
<message><source>Take out</source>
<translation>Herausnehmen</translation></message>
<message><source>The game has no such value</source>
<translation>Das Spiel hat keinen solchen Wert</translation></message>
<message><source>Take the game's value: {0=}</source>
<translation>Den Wert des Spiels nehmen: {0}</translation></message>
<message><source>and {0} more: see the text</source>
<translation>und {0} weitere: siehe den Text</translation></message>
<message><source>A value that this record may have: </source>
<translation>Ein Wert, den dieser Datensatz haben kann: </translation></message>
<message><source>Show it on the wall</source>
<translation>Auf der Wand zeigen</translation></message>
<message><source>from record to record</source>
<translation>von Eintrag zu Eintrag</translation></message>
<message><source>choose several</source>
<translation>mehrere wählen</translation></message>
<message><source>Click on a heading</source>
<translation>Klick auf eine Überschrift</translation></message>
<message><source>sort by it</source>
<translation>danach ordnen</translation></message>
<message><source>Records</source>
<translation>Datensätze</translation></message>
<message><source>lamp's height</source>
<translation>Höhe der Lampe</translation></message>
<message><source>What the game makes of it</source>
<translation>Was das Spiel daraus macht</translation></message>
<message><source>How full, how strong or how high: what the preview shows</source>
<translation>Wie voll, wie stark oder wie hoch: was die Vorschau zeigt</translation></message>
<message><source>{0} filled, with its glow</source>
<translation>{0} gefüllt, mit seinem Schein</translation></message>
<message><source>{0} of its strength, over what it lights</source>
<translation>{0} seiner Stärke, über dem, was es beleuchtet</translation></message>
<message><source>move the mouse: the lamp follows; the slider lifts it</source>
<translation>beweg die Maus: die Lampe folgt; der Regler hebt sie</translation></message>
<message><source>multiplied with the colours that the game uses</source>
<translation>mit den Farben malgenommen, die das Spiel nimmt</translation></message>
<message><source>the same emblem at all its sizes, in proportion</source>
<translation>dasselbe Abzeichen in all seinen Größen, im Verhältnis</translation></message>
<message><source>inside the dashes the game draws something of its own</source>
<translation>in der gestrichelten Fläche zeichnet das Spiel etwas Eigenes</translation></message>
<message><source>Preparing the picture</source>
<translation>Das Bild vorbereiten</translation></message>
<message><source>Putting the preview together</source>
<translation>Die Vorschau zusammensetzen</translation></message>
<message><source>Trying the formats…</source>
<translation>Formate werden probiert…</translation></message>
<message><source>Trying formats for {0}</source>
<translation>Formate für {0} werden probiert</translation></message>
<message><source>Encode as {0=}</source>
<translation>Als {0} kodieren</translation></message>
<message><source>{0} has no formats to choose from</source>
<translation>{0} hat keine Formate zur Wahl</translation></message>
<message><source>multiply by</source>
<translation>malnehmen mit</translation></message>
<message><source>set to</source>
<translation>setzen auf</translation></message>
<message><source>switch off</source>
<translation>ausschalten</translation></message>
<message><source>switch on</source>
<translation>einschalten</translation></message>
<message><source>What is it called? Its id, as the game's definitions write it.</source>
<translation>Wie heißt er? Seine Kennung, wie die Definitionen des Spiels sie schreiben.</translation></message>
<message><source>New record like {0}</source>
<translation>Neuer Datensatz wie {0}</translation></message>
<message><source>Make it</source>
<translation>Machen</translation></message>
<message><source>There is a {0=} already. Another name:</source>
<translation>Ein {0} gibt es schon. Ein anderer Name:</translation></message>
<message><source>Copy values to {0=}</source>
<translation>Werte nach {0} kopieren</translation></message>
<message><source>All values of</source>
<translation>Alle Werte von</translation></message>
<message><source>Copy them</source>
<translation>Kopieren</translation></message>
<message><source>Change several</source>
<translation>Mehrere ändern</translation></message>
<message><source>Which value</source>
<translation>Welcher Wert</translation></message>
<message><source>How</source>
<translation>Wie</translation></message>
<message><source>To what</source>
<translation>Worauf</translation></message>
<message><source>Change them</source>
<translation>Ändern</translation></message>
<message><source>Change all of them</source>
<translation>Alle ändern</translation></message>
<message><source>{0} records</source>
<translation>{0} Datensätze</translation></message>
<message><source>These records have no values</source>
<translation>Diese Datensätze haben keine Werte</translation></message>
<message><source>Nothing changes</source>
<translation>Nichts ändert sich</translation></message>
<message><source>Write a number</source>
<translation>Schreib eine Zahl</translation></message>
<message><source>Figures</source>
<translation>Figuren</translation></message>
<message><source>Ground</source>
<translation>Boden</translation></message>
<message><source>Arrange</source>
<translation>Anordnen</translation></message>
<message><source>The other way round  (F)</source>
<translation>Andersherum  (F)</translation></message>
<message><source>The figure of the cell before  (H)</source>
<translation>Die Figur der Zelle davor  (H)</translation></message>
<message><source>Larger</source>
<translation>Größer</translation></message>
<message><source>One whole time larger  (L)</source>
<translation>Ein ganzes Mal größer  (L)</translation></message>
<message><source>Smaller</source>
<translation>Kleiner</translation></message>
<message><source>One whole time smaller  (S)</source>
<translation>Ein ganzes Mal kleiner  (S)</translation></message>
<message><source>No figure in it  (Backspace)</source>
<translation>Keine Figur darin  (Rücktaste)</translation></message>
<message><source>As the original has it  (K)</source>
<translation>Wie das Original sie hat  (K)</translation></message>
<message><source>{n} figure</source>
<translation>{n} Figur</translation></message>
<message><source>{n} figures</source>
<translation>{n} Figuren</translation></message>
<message><source>source: {0}{1}{2}</source>
<translation>Quelle: {0}{1}{2}</translation></message>
<message><source>figure {0}</source>
<translation>Figur {0}</translation></message>
<message><source>Every figure the other way round</source>
<translation>Jede Figur andersherum</translation></message>
<message><source>Differences</source>
<translation>Unterschiede</translation></message>
<message><source>Show only what differs from the original</source>
<translation>Nur zeigen, was vom Original abweicht</translation></message>
<message><source>As stored</source>
<translation>Wie gespeichert</translation></message>
<message><source>In the colours that the game multiplies it with, one after the other</source>
<translation>In den Farben, mit denen das Spiel es malnimmt, nacheinander</translation></message>
<message><source>Whole character</source>
<translation>Ganze Figur</translation></message>
<message><source>Changes of colour, mirroring and size go to all of its pictures</source>
<translation>Farbwechsel, Spiegeln und Größe gelten für alle ihre Bilder</translation></message>
<message><source>Save frames…</source>
<translation>Bilder speichern…</translation></message>
<message><source>As a GIF or APNG, as numbered files, as layers</source>
<translation>Als GIF oder APNG, als nummerierte Dateien, als Ebenen</translation></message>
<message><source>, {0} times as large</source>
<translation>, {0}-mal so groß</translation></message>
<message><source>, {0} times smaller</source>
<translation>, {0}-mal kleiner</translation></message>
<message><source>between cells</source>
<translation>zwischen Zellen</translation></message>
<message><source>Ground built of both</source>
<translation>Boden aus beiden gebaut</translation></message>
<message><source>Spread the figures over all cells again</source>
<translation>Die Figuren wieder auf alle Zellen verteilen</translation></message>
<message><source>the original's</source>
<translation>die des Originals</translation></message>
<message><source>moved {0} {1}</source>
<translation>bewegt um {0} {1}</translation></message>
<message><source>Choose cells and put figures into them</source>
<translation>Zellen wählen und Figuren hineinsetzen</translation></message>
<message><source>Paint single pixels; the right button takes a colour</source>
<translation>Einzelne Pixel malen; die rechte Taste nimmt eine Farbe</translation></message>
<message><source>Fill what hangs together with one colour</source>
<translation>Was zusammenhängt mit einer Farbe füllen</translation></message>
<message><source>Pencil's colour</source>
<translation>Farbe des Stifts</translation></message>
<message><source>What is shown below the sheets</source>
<translation>Was unter den Bögen zu sehen ist</translation></message>
<message><source>source: {0}</source>
<translation>Quelle: {0}</translation></message>
<message><source>yours · {0}</source>
<translation>deins · {0}</translation></message>
<message><source>{0}  {1}  at {2}, {3}</source>
<translation>{0}  {1}  bei {2}, {3}</translation></message>
<message><source>Only a sheet of tiles is built into ground</source>
<translation>Nur ein Bogen aus Kacheln wird zu Boden gebaut</translation></message>
<message><source>Differences: {0}</source>
<translation>Unterschiede: {0}</translation></message>
<message><source>, ground {0}</source>
<translation>, Boden {0}</translation></message>
<message><source>Tint {0} of {1}</source>
<translation>Tönung {0} von {1}</translation></message>
<message><source>{0} frames of {1} × {2}, yours {3}</source>
<translation>{0} Bilder von {1} × {2}, deins {3}</translation></message>
<message><source> half clear</source>
<translation> halb klar</translation></message>
<message><source>frame {0}</source>
<translation>Bild {0}</translation></message>
<message><source>It has no source with figures</source>
<translation>Es hat keine Quelle mit Figuren</translation></message>
<message><source>Other steps come before the one that lays figures out</source>
<translation>Vor dem Schritt, der Figuren auslegt, kommen andere</translation></message>
<message><source>Original</source>
<translation>Original</translation></message>
<message><source>Yours</source>
<translation>Deins</translation></message>
<message><source>Play together</source>
<translation>Zusammen spielen</translation></message>
<message><source>All parts that are on, round and round</source>
<translation>Alle eingeschalteten Stimmen, rundherum</translation></message>
<message><source>Parts of the song</source>
<translation>Stimmen des Lieds</translation></message>
<message><source>Click a switch to leave a part out, a wave to play from there, a name to put it on the bench</source>
<translation>Klick auf einen Schalter, um eine Stimme wegzulassen, auf eine Welle, um ab dort zu hören, auf einen Namen, um sie auf die Werkbank zu legen</translation></message>
<message><source>{0} beats at {1} bpm</source>
<translation>{0} Schläge bei {1} bpm</translation></message>
<message><source>Hear the last second and the first, again and again, as the loop joins them</source>
<translation>Die letzte Sekunde und die erste hören, immer wieder, wie die Schleife sie verbindet</translation></message>
<message><source>Pitches</source>
<translation>Tonhöhen</translation></message>
<message><source>Show how strong every pitch is over time, instead of the waves</source>
<translation>Zeigen, wie stark jede Tonhöhe im Lauf der Zeit ist, statt der Wellen</translation></message>
<message><source>Beats</source>
<translation>Schläge</translation></message>
<message><source>Show the beats; clicks and loop ends snap to yours</source>
<translation>Die Schläge zeigen; Klicks und Schleifenenden rasten an deinen ein</translation></message>
<message><source>Show everything that is measured of both</source>
<translation>Alles zeigen, was an beiden gemessen ist</translation></message>
<message><source>equal loudness</source>
<translation>gleiche Lautheit</translation></message>
<message><source>Turns the louder one down, so that you compare the sound and not the level</source>
<translation>Dreht das lautere leiser, damit du den Klang vergleichst und nicht die Stärke</translation></message>
<message><source>the original</source>
<translation>das Original</translation></message>
<message><source>Hear {0}; switches in mid-play  (Tab then Space)</source>
<translation>Hören: {0}; wechselt mitten im Spiel  (Tab, dann Leertaste)</translation></message>
<message><source>{0} {1} seam</source>
<translation>{0} {1} Naht</translation></message>
<message><source>{0}  {1} kHz  {2}</source>
<translation>{0}  {1} kHz  {2}</translation></message>
<message><source>  the beginning of {0} minutes</source>
<translation>  der Anfang von {0} Minuten</translation></message>
<message><source>{0=} cannot be read</source>
<translation>{0} lässt sich nicht lesen</translation></message>
<message><source>source  {0}</source>
<translation>Quelle  {0}</translation></message>
<message><source>{0}    trimming takes {1}</source>
<translation>{0}    Beschneiden nimmt {1}</translation></message>
<message><source>{0} to {1} is taken</source>
<translation>{0} bis {1} wird genommen</translation></message>
<message><source>Source</source>
<translation>Quelle</translation></message>
<message><source>The whole source, with the part that is taken: drag it, or move it with Left and Right</source>
<translation>Die ganze Quelle, mit dem Teil, der genommen wird: zieh ihn, oder beweg ihn mit Links und Rechts</translation></message>
<message><source>The queue</source>
<translation>Die Warteschlange</translation></message>
<message><source>Points and steps</source>
<translation>Punkte und Schritte</translation></message>
<message><source>Small pictures of the steps</source>
<translation>Kleine Bilder der Schritte</translation></message>
<message><source>Opening the bench</source>
<translation>Die Werkbank öffnen</translation></message>
<message><source>A quick look</source>
<translation>Ein kurzer Blick</translation></message>
<message><source>Match {0}</source>
<translation>{0} angleichen</translation></message>
<message><source>No swaps yet. Go to Find ({0}) and drop a file on the asset that it should replace.</source>
<translation>Noch keine Tausche. Geh zu Finden ({0}) und zieh eine Datei auf das Asset, das sie ersetzen soll.</translation></message>
<message><source>{0=} is being worked out</source>
<translation>{0=} wird ausgearbeitet</translation></message>
<message><source>Keep</source>
<translation>Behalten</translation></message>
<message><source>No longer keep</source>
<translation>Nicht mehr behalten</translation></message>
<message><source>The source goes into the mod as it is. Fit all chooses what has to be done to it.</source>
<translation>Die Quelle kommt in die Mod, wie sie ist. „Alles anpassen“ wählt, was mit ihr geschehen muss.</translation></message>
<message><source>Add a step after the others</source>
<translation>Hinter den anderen einen Schritt hinzufügen</translation></message>
<message><source>{0} on or off</source>
<translation>{0} an oder aus</translation></message>
<message><source>Add {0}</source>
<translation>{0} hinzufügen</translation></message>
<message><source>Remove a step</source>
<translation>Einen Schritt entfernen</translation></message>
<message><source>Change the encoding</source>
<translation>Die Kodierung ändern</translation></message>
<message><source>What this step gives</source>
<translation>Was dieser Schritt ergibt</translation></message>
<message><source>This file goes into the mod as it is.</source>
<translation>Diese Datei kommt in die Mod, wie sie ist.</translation></message>
<message><source>Step {0}</source>
<translation>Schritt {0}</translation></message>
<message><source>Show or hide its settings; drag it, or Alt and the arrows, for another place</source>
<translation>Seine Einstellungen zeigen oder verbergen; zieh ihn, oder nimm Alt und die Pfeile, um ihn zu versetzen</translation></message>
<message><source>Settings as they come</source>
<translation>Einstellungen, wie sie kommen</translation></message>
<message><source>Earlier</source>
<translation>Früher</translation></message>
<message><source>Later</source>
<translation>Später</translation></message>
<message><source>Move before the step above</source>
<translation>Vor den Schritt darüber setzen</translation></message>
<message><source>Move after the step below</source>
<translation>Hinter den Schritt darunter setzen</translation></message>
<message><source>Take this step out</source>
<translation>Diesen Schritt herausnehmen</translation></message>
<message><source>{0}: the step is another one by now, and stays as it is</source>
<translation>{0}: Der Schritt ist inzwischen ein anderer und bleibt, wie er ist</translation></message>
<message><source>Move the area of {0}</source>
<translation>Die Fläche von {0} bewegen</translation></message>
<message><source>Move a step</source>
<translation>Einen Schritt versetzen</translation></message>
<message><source>Switch {0}</source>
<translation>{0} schalten</translation></message>
<message><source>Switch it off</source>
<translation>Ausschalten</translation></message>
<message><source>Switch it on</source>
<translation>Einschalten</translation></message>
<message><source>Change {0}</source>
<translation>{0} ändern</translation></message>
<message><source>A colour</source>
<translation>Eine Farbe</translation></message>
<message><source>{n} colour</source>
<translation>{n} Farbe</translation></message>
<message><source>{n} colours</source>
<translation>{n} Farben</translation></message>
<message><source>any number of colours</source>
<translation>beliebig viele Farben</translation></message>
<message><source>From a picture…</source>
<translation>Aus einem Bild…</translation></message>
<message><source>Take the colours from a picture of a row of them</source>
<translation>Die Farben aus dem Bild einer Farbreihe nehmen</translation></message>
<message><source>As a picture…</source>
<translation>Als Bild…</translation></message>
<message><source>Write the colours as a picture, a field each</source>
<translation>Die Farben als Bild schreiben, jede ein Feld</translation></message>
<message><source>A picture of a row of colours</source>
<translation>Das Bild einer Farbreihe</translation></message>
<message><source>The colours as a picture</source>
<translation>Die Farben als Bild</translation></message>
<message><source>Click a colour to choose another, or drop a picture of a row of colours here</source>
<translation>Klick auf eine Farbe, um eine andere zu wählen, oder zieh das Bild einer Farbreihe hierher</translation></message>
<message><source>From the figure</source>
<translation>Aus der Figur</translation></message>
<message><source>Take the colours that the figure has</source>
<translation>Die Farben nehmen, die die Figur hat</translation></message>
<message><source>The strip</source>
<translation>Die Reihe</translation></message>
<message><source>{0}: {1}, yours {2}</source>
<translation>{0}: {1}, deins {2}</translation></message>
<message><source>from point to point</source>
<translation>von Punkt zu Punkt</translation></message>
<message><source>{0}: {1}, yours {2}, {3}</source>
<translation>{0}: {1}, deins {2}, {3}</translation></message>
<message><source>Fit all</source>
<translation>Alles anpassen</translation></message>
<message><source>Match it</source>
<translation>Angleichen</translation></message>
<message><source>Add a step that does this</source>
<translation>Einen Schritt hinzufügen, der das tut</translation></message>
<message><source>Keep yours</source>
<translation>Deins behalten</translation></message>
<message><source>Stay with yours: it no longer stops the build, and Fit all leaves it</source>
<translation>Bei deinem bleiben: es hält den Build nicht mehr auf, und „Alles anpassen“ lässt es</translation></message>
<message><source>Show</source>
<translation>Zeigen</translation></message>
<message><source>Show where in the picture</source>
<translation>Zeigen, wo im Bild</translation></message>
<message><source>No longer keep yours</source>
<translation>Deins nicht mehr behalten</translation></message>
<message><source>Fit table</source>
<translation>Passtabelle</translation></message>
<message><source>and {0} more that fit</source>
<translation>und {0} weitere, die passen</translation></message>
<message><source>only what matters</source>
<translation>nur, was zählt</translation></message>
<message><source>Choose steps and encoding so that every point fits</source>
<translation>Schritte und Kodierung so wählen, dass jeder Punkt passt</translation></message>
<message><source>Show where</source>
<translation>Zeigen, wo</translation></message>
<message><source>Copy as text</source>
<translation>Als Text kopieren</translation></message>
<message><source>{0}, kept</source>
<translation>{0}, behalten</translation></message>
<message><source>Take the text as it is</source>
<translation>Den Text nehmen, wie er ist</translation></message>
<message><source>Make changes of what you wrote  (when you leave it, too)</source>
<translation>Aus dem Geschriebenen Änderungen machen  (auch beim Verlassen)</translation></message>
<message><source>Throw away what you wrote here</source>
<translation>Wegwerfen, was du hier geschrieben hast</translation></message>
<message><source>{0} text</source>
<translation>Text: {0}</translation></message>
<message><source>Write in yours to change it: the whole text goes into the mod, stored as the game's is.</source>
<translation>Schreib in deinen, um ihn zu ändern: der ganze Text kommt in die Mod, gespeichert wie der des Spiels.</translation></message>
<message><source>Write in yours to change it: what you change becomes changes by record and value.</source>
<translation>Schreib in deinen, um ihn zu ändern: was du änderst, wird zu Änderungen nach Datensatz und Wert.</translation></message>
<message><source>light and dark</source>
<translation>hell und dunkel</translation></message>
<message><source>Tones of both pictures</source>
<translation>Töne beider Bilder</translation></message>
<message><source>mean {0}</source>
<translation>Mittel {0}</translation></message>
<message><source>Choose another on the wall</source>
<translation>Auf der Wand ein anderes wählen</translation></message>
<message><source>Take all of them out</source>
<translation>Alle herausnehmen</translation></message>
<message><source>whole number</source>
<translation>ganze Zahl</translation></message>
<message><source>The game's own: {0}</source>
<translation>Der des Spiels: {0}</translation></message>
<message><source>Colour {0}</source>
<translation>Farbe {0}</translation></message>
<message><source>Asset</source>
<translation>Asset</translation></message>
<message><source>List</source>
<translation>Liste</translation></message>
<message><source>What to add</source>
<translation>Was dazukommt</translation></message>
<message><source>Add</source>
<translation>Hinzufügen</translation></message>
<message><source>Put it at the end</source>
<translation>Ans Ende setzen</translation></message>
<message><source>Take what is selected out  (Del)</source>
<translation>Herausnehmen, was gewählt ist  (Entf)</translation></message>
<message><source>Click the picture to see it on the wall</source>
<translation>Klick auf das Bild, um es auf der Wand zu sehen</translation></message>
<message><source>Take it out again</source>
<translation>Wieder herausnehmen</translation></message>
<message><source>Take the game's: {0}</source>
<translation>Das des Spiels nehmen: {0}</translation></message>
<message><source>New like {0=}…</source>
<translation>Neu wie {0}…</translation></message>
<message><source>What uses {0=}…</source>
<translation>Was {0} braucht…</translation></message>
<message><source>Take the game's {0=}</source>
<translation>Das des Spiels nehmen: {0}</translation></message>
<message><source>Copy the value</source>
<translation>Den Wert kopieren</translation></message>
<message><source>Copy its address</source>
<translation>Seine Adresse kopieren</translation></message>
<message><source>Type a command, or choose a program of this desktop's menu</source>
<translation>Einen Befehl eintippen oder ein Programm aus dem Menü dieses Desktops wählen</translation></message>
<message><source>Try it</source>
<translation>Ausprobieren</translation></message>
<message><source>Start the game with this command, and see whether it goes on</source>
<translation>Das Spiel mit diesem Befehl starten und sehen, ob es weiterläuft</translation></message>
<message><source>Keep this</source>
<translation>So behalten</translation></message>
<message><source>Show its file</source>
<translation>Seine Datei zeigen</translation></message>
<message><source>The profile, in the system's file manager</source>
<translation>Das Profil, im Dateimanager des Systems</translation></message>
<message><source>HOW IT IS STARTED</source>
<translation>WIE ES GESTARTET WIRD</translation></message>
<message><source>HOW MODS REACH IT</source>
<translation>WIE MODS HINEINKOMMEN</translation></message>
<message><source>Looking for what starts the game</source>
<translation>Wird gesucht: was das Spiel startet</translation></message>
<message><source>Starting the game</source>
<translation>Das Spiel wird gestartet</translation></message>
<message><source>Keeping what is known of {0=}</source>
<translation>Wird behalten: was über {0=} bekannt ist</translation></message>
<message><source>NAME=value, one a line</source>
<translation>NAME=Wert, je Zeile einer</translation></message>
<message><source>What the game is called</source>
<translation>Wie das Spiel heißt</translation></message>
<message><source>The version of the game that mods are made for</source>
<translation>Die Version des Spiels, für die Mods gemacht werden</translation></message>
<message><source>The command that starts the game, with its arguments; {0} is its folder</source>
<translation>Der Befehl, der das Spiel startet, mit seinen Argumenten; {0} ist sein Ordner</translation></message>
<message><source>The folder that it is started in, below the game's; . is the game's own</source>
<translation>Der Ordner, in dem es gestartet wird, unter dem des Spiels; . ist der des Spiels selbst</translation></message>
<message><source>What is set for the game: NAME=value, one a line</source>
<translation>Was für das Spiel gesetzt wird: NAME=Wert, je Zeile einer</translation></message>
<message><source>Programs of this desktop that may start the game</source>
<translation>Programme dieses Desktops, die das Spiel starten könnten</translation></message>
<message><source>From the menu</source>
<translation>Aus dem Menü</translation></message>
<message><source>Command</source>
<translation>Befehl</translation></message>
<message><source>In the folder</source>
<translation>Im Ordner</translation></message>
<message><source>Environment</source>
<translation>Umgebung</translation></message>
<message><source>THE GAME</source>
<translation>DAS SPIEL</translation></message>
<message><source>ITS PROFILE</source>
<translation>SEIN PROFIL</translation></message>
<message><source>Roles, names of assets and how mods are built are said in this file; docs/profiles.md says how.</source>
<translation>Rollen, Namen von Assets und wie Mods gebaut werden, stehen in dieser Datei; docs/profiles.md sagt, wie.</translation></message>
<message><source>It came with Furnel, which keeps it up to date: nothing here can be changed.</source>
<translation>Es kam mit Furnel, das es aktuell hält: Hier lässt sich nichts ändern.</translation></message>
<message><source>This desktop's menu has no games</source>
<translation>Im Menü dieses Desktops sind keine Spiele</translation></message>
<message><source>It ended at once, without an error.</source>
<translation>Es endete sofort, ohne Fehler.</translation></message>
<message><source>It runs.</source>
<translation>Es läuft.</translation></message>
<message><source>The bridge has {0} and comes last</source>
<translation>Die Brücke hat {0} und kommt zuletzt</translation></message>
<message><source>Change the load order</source>
<translation>Die Ladereihenfolge ändern</translation></message>
<message><source>A bridge has nothing to add: where mods contradict each other the last one is seen</source>
<translation>Eine Brücke hat nichts hinzuzufügen: Wo Mods sich widersprechen, sieht man die letzte</translation></message>
<message><source>No bridge is needed: no mod hides what another one changes</source>
<translation>Keine Brücke nötig: keine Mod verdeckt, was eine andere ändert</translation></message>
<message><source>{0}; {1} went to the last mod</source>
<translation>{0}; {1} ging an die letzte Mod</translation></message>
<message><source>Switch {0} {1}</source>
<translation>{0} schalten: {1}</translation></message>
<message><source>. {0} of it break, and were built all the same</source>
<translation>. {0} davon brechen und wurden trotzdem gebaut</translation></message>
<message><source>Installing</source>
<translation>Installieren</translation></message>
<message><source>Getting the mod</source>
<translation>Die Mod holen</translation></message>
<message><source>Saving the load order</source>
<translation>Die Ladereihenfolge speichern</translation></message>
<message><source>Reading the load order</source>
<translation>Die Ladereihenfolge lesen</translation></message>
<message><source>{0}: what was chosen is seen</source>
<translation>{0}: Man sieht, was gewählt wurde</translation></message>
<message><source>{0}: every mod is seen</source>
<translation>{0}: jede Mod ist zu sehen</translation></message>
<message><source>There is nothing to install yet: build the mod first</source>
<translation>Noch ist nichts zu installieren: baue zuerst die Mod</translation></message>
<message><source>Removing</source>
<translation>Entfernen</translation></message>
<message><source>Making the bridge</source>
<translation>Die Brücke machen</translation></message>
<message><source>Taking the bridge off</source>
<translation>Die Brücke abnehmen</translation></message>
<message><source>{0=} {1} is {2}</source>
<translation>{0} {1} ist {2}</translation></message>
<message><source>Taking the mod off</source>
<translation>Die Mod abnehmen</translation></message>
<message><source>{n} contradiction</source>
<translation>{n} Widerspruch</translation></message>
<message><source>{n} contradictions</source>
<translation>{n} Widersprüche</translation></message>
<message><source>in the game, and on</source>
<translation>im Spiel, und an</translation></message>
<message><source>Stopping: {0}</source>
<translation>Wird angehalten: {0}</translation></message>
<message><source>something unforeseen went wrong</source>
<translation>etwas Unvorhergesehenes ging schief</translation></message>
<message><source>The log has the details</source>
<translation>Einzelheiten stehen im Protokoll</translation></message>
<message><source>Learning the game</source>
<translation>Das Spiel kennenlernen</translation></message>
<message><source>{0} MB</source>
<translation>{0} MB</translation></message>
<message><source>Inter</source>
<translation>Inter</translation></message>
<message><source>DejaVu Sans Mono</source>
<translation>DejaVu Sans Mono</translation></message>
<message><source>Liberation Mono</source>
<translation>Liberation Mono</translation></message>
<message><source>{0} kB</source>
<translation>{0} kB</translation></message>
<message><source>icon {0}</source>
<translation>icon {0}</translation></message>
<message><source>Another program changed the mod: it is taken over</source>
<translation>Ein anderes Programm hat die Mod geändert: Es ist übernommen</translation></message>
<message><source>{0} was changed meanwhile and stays as you left it{1}: do it again if you want it</source>
<translation>{0} wurde inzwischen geändert und bleibt, wie du es gelassen hast{1}: Mach es noch einmal, wenn du es willst</translation></message>
<message><source> in {0}</source>
<translation> in {0}</translation></message>
<message><source>Keeping the history</source>
<translation>Den Verlauf behalten</translation></message>
<message><source>Saving the mod</source>
<translation>Die Mod speichern</translation></message>
<message><source>Reading the mod</source>
<translation>Die Mod lesen</translation></message>
<message><source>Saving {0=}</source>
<translation>{0=} speichern</translation></message>
<message><source>Another program changed the mod, too: {0} stays as it is here</source>
<translation>Ein anderes Programm hat die Mod auch geändert: {0} bleibt, wie es hier ist</translation></message>
<message><source>Take theirs</source>
<translation>Das andere nehmen</translation></message>
<message><source>Saved; what was in it is in {0=}</source>
<translation>Gespeichert; was darin stand, ist in {0=}</translation></message>
<message><source>{0=}, which is not open any more, has it now: {1}</source>
<translation>{0=}, nicht mehr geöffnet, hat es jetzt: {1}</translation></message>
<message><source>Take what the other program wrote</source>
<translation>Nehmen, was das andere Programm schrieb</translation></message>
<message><source>Write mine over it</source>
<translation>Meines darüberschreiben</translation></message>
<message><source>Recognised</source>
<translation>Erkannt</translation></message>
<message><source>opened as archives</source>
<translation>als Archive geöffnet</translation></message>
<message><source>Loose files</source>
<translation>Lose Dateien</translation></message>
<message><source>each file of the folder that is in no archive, once</source>
<translation>jede Datei des Ordners, die in keinem Archiv ist, einmal</translation></message>
<message><source>Found by carving</source>
<translation>Durch Suchen gefunden</translation></message>
<message><source>an unknown kind, but known files lie in it; they can be replaced where they fit</source>
<translation>eine unbekannte Art, aber bekannte Dateien liegen darin; sie lassen sich ersetzen, wo sie passen</translation></message>
<message><source>Unknown</source>
<translation>Unbekannt</translation></message>
<message><source>click one to work it out on the archive bench</source>
<translation>klick auf eins, um es auf der Archiv-Werkbank zu ergründen</translation></message>
<message><source>Beside archives</source>
<translation>Neben Archiven</translation></message>
<message><source>indexes and checksums, opened with their archives</source>
<translation>Indizes und Prüfsummen, mit ihren Archiven geöffnet</translation></message>
<message><source>Not listed</source>
<translation>Nicht aufgeführt</translation></message>
<message><source>links that lead nowhere or to what is listed already, and what cannot be read</source>
<translation>Verweise, die nirgendwohin oder auf schon Aufgeführtes zeigen, und was nicht lesbar ist</translation></message>
<message><source>Everything that lies open</source>
<translation>Alles, was offen liegt</translation></message>
<message><source>Start</source>
<translation>Beginnen</translation></message>
<message><source>Keep the description and open the game</source>
<translation>Die Beschreibung behalten und das Spiel öffnen</translation></message>
<message><source>All this, and how it is started, is changed later on This game; docs/profiles.md has the rest.</source>
<translation>All das, und wie es gestartet wird, lässt sich später unter Dieses Spiel ändern; den Rest sagt docs/profiles.md.</translation></message>
<message><source>Describing {0=}</source>
<translation>{0} wird beschrieben</translation></message>
<message><source>What is in the folder</source>
<translation>Was in dem Ordner ist</translation></message>
<message><source>Another folder…</source>
<translation>Anderer Ordner…</translation></message>
<message><source>Look at another folder</source>
<translation>Einen anderen Ordner ansehen</translation></message>
<message><source>What is in {0=}</source>
<translation>Was in {0} ist</translation></message>
<message><source>Looking at the game's files …</source>
<translation>Die Dateien des Spiels werden angesehen …</translation></message>
<message><source>{0=} is known now; its profile can be edited in your profiles folder</source>
<translation>{0} ist jetzt bekannt; sein Profil lässt sich in deinem Profilordner bearbeiten</translation></message>
<message><source>loose files</source>
<translation>lose Dateien</translation></message>
<message><source>layout {0}</source>
<translation>Layout {0}</translation></message>
<message><source>Nothing here opens yet: work out one of its archives, then look again</source>
<translation>Hier öffnet sich noch nichts: ergründe eins seiner Archive, dann sieh noch einmal nach</translation></message>
<message><source>new mods</source>
<translation>neue Mods</translation></message>
<message><source>Northern Lights</source>
<translation>Northern Lights</translation></message>
<message><source>What it is called</source>
<translation>Wie sie heißt</translation></message>
<message><source>a folder</source>
<translation>ein Ordner</translation></message>
<message><source>Where it lies</source>
<translation>Wo sie liegt</translation></message>
<message><source>The folder around it</source>
<translation>Der Ordner darum</translation></message>
<message><source>The folder around the new mod's</source>
<translation>Der Ordner um den der neuen Mod</translation></message>
<message><source>The folder's path has to be a whole one</source>
<translation>Der Pfad des Ordners muss vollständig sein</translation></message>
<message><source>New mod</source>
<translation>Neue Mod</translation></message>
<message><source>Mods</source>
<translation>Mods</translation></message>
<message><source>Start it</source>
<translation>Beginnen</translation></message>
<message><source>Make the folder and open the mod</source>
<translation>Den Ordner anlegen und die Mod öffnen</translation></message>
<message><source>A new mod for {0}</source>
<translation>Eine neue Mod für {0}</translation></message>
<message><source>What is it called?</source>
<translation>Wie heißt sie?</translation></message>
<message><source>Its folder, which is made. Your sources can lie in it, or stay where they are.</source>
<translation>Ihr Ordner, der angelegt wird. Deine Quellen können darin liegen oder bleiben, wo sie sind.</translation></message>
<message><source>There is a mod in this folder already</source>
<translation>In diesem Ordner ist schon eine Mod</translation></message>
<message><source>A file of that name is there</source>
<translation>Eine Datei dieses Namens ist da</translation></message>
<message><source>{0=} — Furnel</source>
<translation>{0} — Furnel</translation></message>
<message><source>Opening {0} …</source>
<translation>{0} wird geöffnet …</translation></message>
<message><source>Everything after it is taken back, or done again up to it; nothing is lost</source>
<translation>Alles danach wird zurückgenommen oder bis dahin wiederholt; nichts geht verloren</translation></message>
<message><source>Go back to here</source>
<translation>Bis hierher zurück</translation></message>
<message><source>Do again up to here</source>
<translation>Bis hierher wiederholen</translation></message>
<message><source>Changes, the latest first</source>
<translation>Änderungen, die letzten zuerst</translation></message>
<message><source>What it changed</source>
<translation>Was sie geändert hat</translation></message>
<message><source>taken back</source>
<translation>zurückgenommen</translation></message>
<message><source>done again</source>
<translation>wiederholt</translation></message>
<message><source>As it was when this list begins</source>
<translation>Wie es war, als diese Liste begann</translation></message>
<message><source>{0} in force{1}. Going back loses nothing, until something else is changed.</source>
<translation>{0} gelten{1}. Zurückgehen verliert nichts, bis etwas anderes geändert wird.</translation></message>
<message><source>Before all of them</source>
<translation>Vor allen</translation></message>
<message><source>This is now</source>
<translation>Das ist jetzt</translation></message>
<message><source>Show it on the bench</source>
<translation>Auf der Werkbank zeigen</translation></message>
<message><source>, {0} taken back</source>
<translation>, {0} zurückgenommen</translation></message>
<message><source>   · taken back</source>
<translation>   · zurückgenommen</translation></message>
<message><source>Preparing to play</source>
<translation>Wiedergabe vorbereiten</translation></message>
<message><source>Kept in the profile of {0=}</source>
<translation>Im Profil von {0=} behalten</translation></message>
<message><source>Furnel {0}, Python {1}, Qt {2}, PyQt {3}, {4}</source>
<translation>Furnel {0}, Python {1}, Qt {2}, PyQt {3}, {4}</translation></message>
<message><source>Furnel {0} on Python {1} ended without warning.</source>
<translation>Furnel {0} mit Python {1} endete ohne Vorwarnung.</translation></message>
<message><source>{0}

{1}
The log before it:
{2}</source>
<translation>{0}

{1}
Das Protokoll davor:
{2}</translation></message>
<message><source>Your mod is saved. This text says what happened; it stays on this machine unless you copy it and send it to somebody.</source>
<translation>Deine Mod ist gespeichert. Dieser Text sagt, was geschah; er bleibt auf diesem Rechner, es sei denn, du kopierst ihn und schickst ihn jemandem.</translation></message>
<message><source>Copy it</source>
<translation>Kopieren</translation></message>
<message><source>Into the clipboard</source>
<translation>In die Zwischenablage</translation></message>
<message><source>Close</source>
<translation>Schließen</translation></message>
<message><source>What went wrong</source>
<translation>Was schiefging</translation></message>
<message><source>The report</source>
<translation>Der Bericht</translation></message>
<message><source>from notice to notice</source>
<translation>von Meldung zu Meldung</translation></message>
<message><source>do what it offers first</source>
<translation>tun, was sie zuerst anbietet</translation></message>
<message><source>refusals only</source>
<translation>nur Ablehnungen</translation></message>
<message><source>Show only what could not be done</source>
<translation>Nur zeigen, was nicht ging</translation></message>
<message><source>Copy what is shown, a line each</source>
<translation>Kopieren, was zu sehen ist, je eine Zeile</translation></message>
<message><source>What was said, the latest first</source>
<translation>Was gesagt wurde, das Letzte zuerst</translation></message>
<message><source>; it offers: </source>
<translation>; sie bietet an: </translation></message>
<message><source>Copy the words</source>
<translation>Den Wortlaut kopieren</translation></message>
<message><source>Nothing to show</source>
<translation>Nichts zu zeigen</translation></message>
<message><source>{0} since the start</source>
<translation>{0} seit dem Start</translation></message>
<message><source>{n} notice</source>
<translation>{n} Meldung</translation></message>
<message><source>{n} notices</source>
<translation>{n} Meldungen</translation></message>
<message><source>{n} refusal</source>
<translation>{n} Ablehnung</translation></message>
<message><source>{n} refusals</source>
<translation>{n} Ablehnungen</translation></message>
<message><source>The mod was changed while it was being opened: it is taken over</source>
<translation>Die Mod wurde geändert, während sie geöffnet wurde: das ist übernommen</translation></message>
<message><source>Opening {0=}</source>
<translation>{0} wird geöffnet</translation></message>
<message><source>Starting {0=}</source>
<translation>{0} wird begonnen</translation></message>
<message><source>Catalogue up to date: {0} in {1}</source>
<translation>Der Katalog ist aktuell: {0}, {1}</translation></message>
<message><source>Remembering what was opened</source>
<translation>Merken, was offen war</translation></message>
<message><source>Fitting {0=}</source>
<translation>{0} wird angepasst</translation></message>
<message><source>Show in folder</source>
<translation>Im Ordner zeigen</translation></message>
<message><source>Dark</source>
<translation>Dunkel</translation></message>
<message><source>Light</source>
<translation>Hell</translation></message>
<message><source>As the system</source>
<translation>Wie das System</translation></message>
<message><source>Definitions</source>
<translation>Definitionen</translation></message>
<message><source>Tab</source>
<translation>Tab</translation></message>
<message><source>Left</source>
<translation>Links</translation></message>
<message><source>Right</source>
<translation>Rechts</translation></message>
<message><source>Up</source>
<translation>Auf</translation></message>
<message><source>Down</source>
<translation>Ab</translation></message>
<message><source>Theme</source>
<translation>Farben</translation></message>
<message><source>dark, light, or as the system</source>
<translation>dunkel, hell oder wie das System</translation></message>
<message><source>Motion</source>
<translation>Bewegung</translation></message>
<message><source>what moves by itself, or only when asked</source>
<translation>was sich von selbst bewegt, oder nur auf Wunsch</translation></message>
<message><source>Language</source>
<translation>Sprache</translation></message>
<message><source>what this window says, and in which words</source>
<translation>was dieses Fenster sagt, und mit welchen Worten</translation></message>
<message><source>Size of everything</source>
<translation>Größe von allem</translation></message>
<message><source>text, tiles and buttons, in per cent</source>
<translation>Text, Kacheln und Knöpfe, in Prozent</translation></message>
<message><source>Sound device</source>
<translation>Tongerät</translation></message>
<message><source>where it is heard</source>
<translation>wo man es hört</translation></message>
<message><source>Volume</source>
<translation>Lautstärke</translation></message>
<message><source>of everything that is heard here</source>
<translation>von allem, was hier zu hören ist</translation></message>
<message><source>Programs that sources open in</source>
<translation>Programme, in denen Quellen aufgehen</translation></message>
<message><source>for pictures, sounds and definitions</source>
<translation>für Bilder, Geräusche und Definitionen</translation></message>
<message><source>What is kept on this machine</source>
<translation>Was auf diesem Rechner liegt</translation></message>
<message><source>how much, and letting go of it</source>
<translation>wie viel, und wie man es loswird</translation></message>
<message><source>Other keys</source>
<translation>Andere Tasten</translation></message>
<message><source>give a command another key</source>
<translation>einem Befehl eine andere Taste geben</translation></message>
<message><source>One key, with or without Ctrl, Alt and Shift</source>
<translation>Eine Taste, mit oder ohne Strg, Alt und Umschalt</translation></message>
<message><source>{0} is what lists, fields and dialogs are worked with</source>
<translation>Mit {0} werden Listen, Felder und Fenster bedient</translation></message>
<message><source>Letters alone are for typing: take Ctrl or Alt with it, or one of F1 to F12</source>
<translation>Buchstaben allein sind zum Tippen: nimm Strg oder Alt dazu, oder eine von F1 bis F12</translation></message>
<message><source>{0} is “{1}”; give that another one first</source>
<translation>{0} ist „{1}“; gib dem zuerst eine andere</translation></message>
<message><source>As it comes</source>
<translation>Wie es kommt</translation></message>
<message><source>Animations begin by themselves, and what is looked for blinks</source>
<translation>Bewegungen beginnen von selbst, und was gesucht wird, blinkt</translation></message>
<message><source>Only when asked</source>
<translation>Nur auf Wunsch</translation></message>
<message><source>Animations wait for Play, Blink for a click, and nothing blinks</source>
<translation>Bewegungen warten auf Abspielen, Blinken auf einen Klick, und sonst blinkt nichts</translation></message>
<message><source>Three notes</source>
<translation>Drei Töne</translation></message>
<message><source>Empty it</source>
<translation>Leeren</translation></message>
<message><source>What is needed again is made again; what is open now stays</source>
<translation>Was wieder gebraucht wird, wird neu gemacht; was jetzt offen ist, bleibt</translation></message>
<message><source>Command or key</source>
<translation>Befehl oder Taste</translation></message>
<message><source>Search the keys</source>
<translation>Tasten suchen</translation></message>
<message><source>Use this key</source>
<translation>Diese Taste nehmen</translation></message>
<message><source>In place of the one that it has</source>
<translation>An der Stelle derer, die er hat</translation></message>
<message><source>As it came</source>
<translation>Wie sie kam</translation></message>
<message><source>The key that Furnel came with</source>
<translation>Die Taste, mit der Furnel kam</translation></message>
<message><source>Start it from there, and open mods, archives and folders with it</source>
<translation>Von dort starten, und Mods, Archive und Ordner damit öffnen</translation></message>
<message><source>Heard through</source>
<translation>Zu hören über</translation></message>
<message><source>PROGRAMS THAT SOURCES OPEN IN</source>
<translation>PROGRAMME, IN DENEN QUELLEN AUFGEHEN</translation></message>
<message><source>KEPT ON THIS MACHINE, TO BE FAST</source>
<translation>AUF DIESEM RECHNER, DAMIT ES SCHNELL GEHT</translation></message>
<message><source>At most</source>
<translation>Höchstens</translation></message>
<message><source>Show the folder</source>
<translation>Den Ordner zeigen</translation></message>
<message><source>ON THIS DESKTOP</source>
<translation>AUF DIESEM SCHREIBTISCH</translation></message>
<message><source>In its menu</source>
<translation>In seinem Menü</translation></message>
<message><source>A program for {0}</source>
<translation>Ein Programm für {0}</translation></message>
<message><source>three notes</source>
<translation>drei Töne</translation></message>
<message><source>Letting go of what is kept</source>
<translation>Aufgehobenes loswerden</translation></message>
<message><source>Counting what is kept</source>
<translation>Aufgehobenes zählen</translation></message>
<message><source>For this machine. What you change is used at once.</source>
<translation>Für diesen Rechner. Was du änderst, gilt sofort.</translation></message>
<message><source>{0}, for the whole window</source>
<translation>{0}, für das ganze Fenster</translation></message>
<message><source>Choose a program</source>
<translation>Ein Programm wählen</translation></message>
<message><source>The program that the system opens such files with</source>
<translation>Das Programm, mit dem das System solche Dateien öffnet</translation></message>
<message><source>{0} GB</source>
<translation>{0} GB</translation></message>
<message><source>How much is kept</source>
<translation>Wie viel aufgehoben wird</translation></message>
<message><source>Commands and their keys</source>
<translation>Befehle und ihre Tasten</translation></message>
<message><source>The new key</source>
<translation>Die neue Taste</translation></message>
<message><source>from the next start</source>
<translation>ab dem nächsten Start</translation></message>
<message><source>Take it off</source>
<translation>Herausnehmen</translation></message>
<message><source>Put it there</source>
<translation>Hineinlegen</translation></message>
<message><source>the system's own</source>
<translation>das des Systems</translation></message>
<message><source>There is no sound device</source>
<translation>Es gibt kein Tongerät</translation></message>
<message><source>Choose a command</source>
<translation>Wähle einen Befehl</translation></message>
<message><source>{0} came free</source>
<translation>{0} wurden frei</translation></message>
<message><source>Nothing had to go</source>
<translation>Nichts musste gehen</translation></message>
<message><source>{0} now: {1}</source>
<translation>{0} jetzt: {1}</translation></message>
<message><source>As the system opens them</source>
<translation>Wie das System sie öffnet</translation></message>
<message><source>It came with {0}</source>
<translation>Er kam mit {0}</translation></message>
<message><source>Without a key it is found by Do anything</source>
<translation>Ohne Taste findet man ihn mit „Irgendetwas tun“</translation></message>
<message><source>{0} ago</source>
<translation>vor {0}</translation></message>
<message><source>Making Tarnlight Ferry</source>
<translation>Tarnlight Ferry wird gemacht</translation></message>
<message><source>Tarnlight Ferry</source>
<translation>Tarnlight Ferry</translation></message>
<message><source>just now</source>
<translation>gerade eben</translation></message>
<message><source>{0} minutes ago</source>
<translation>vor {0} Minuten</translation></message>
<message><source>{n} day</source>
<translation>{n} Tag</translation></message>
<message><source>{n} days</source>
<translation>{n} Tagen</translation></message>
<message><source>Try it on Tarnlight Ferry</source>
<translation>Probier es mit Tarnlight Ferry</translation></message>
<message><source>A small made-up game, and a mod for it that is half done</source>
<translation>Ein kleines erfundenes Spiel und eine halb fertige Mod dafür</translation></message>
<message><source>A game's folder, a mod, an archive; with a mod open, pictures and sounds.</source>
<translation>Der Ordner eines Spiels, eine Mod, ein Archiv; ist eine Mod offen, auch Bilder und Geräusche.</translation></message>
<message><source>Looking at games and mods</source>
<translation>Spiele und Mods werden angesehen</translation></message>
<message><source>{0=} is off this list; its files are where they were</source>
<translation>{0} ist von dieser Liste; seine Dateien sind, wo sie waren</translation></message>
<message><source>{n} hour</source>
<translation>{n} Stunde</translation></message>
<message><source>{n} hours</source>
<translation>{n} Stunden</translation></message>
<message><source>Drop a game's folder here</source>
<translation>Zieh den Ordner eines Spiels hierher</translation></message>
<message><source>or a mod, or an archive that nobody described</source>
<translation>oder eine Mod oder ein Archiv, das niemand beschrieben hat</translation></message>
<message><source>A game that is not known yet…</source>
<translation>Ein unbekanntes Spiel…</translation></message>
<message><source>Look at its folder and describe it</source>
<translation>Seinen Ordner ansehen und beschreiben</translation></message>
<message><source>A mod that you began</source>
<translation>Eine begonnene Mod</translation></message>
<message><source>Look at a file's bytes and describe them</source>
<translation>Die Bytes einer Datei ansehen und beschreiben</translation></message>
<message><source>OR DROP IT HERE</source>
<translation>ODER ZIEH ES HIERHER</translation></message>
<message><source>NO GAME AT HAND?</source>
<translation>KEIN SPIEL ZUR HAND?</translation></message>
<message><source>A made-up game and a mod that is half done come into ~/{0=}. It takes half a minute, and nothing is loaded from anywhere.</source>
<translation>Ein erfundenes Spiel und eine halb fertige Mod kommen nach ~/{0}. Es dauert eine halbe Minute, und nichts wird von irgendwoher geladen.</translation></message>
<message><source>{0=} is somebody else's: open {1=}, then Go on from it… on Try</source>
<translation>{0} gehört jemand anderem: öffne {1}, dann „Daran weiterarbeiten…“ unter Testen</translation></message>
<message><source>Open</source>
<translation>Öffnen</translation></message>
<message><source>Take off this list</source>
<translation>Von dieser Liste nehmen</translation></message>
<message><source>Check the free space, or choose another home folder</source>
<translation>Prüfe den freien Platz, oder wähle einen anderen persönlichen Ordner</translation></message>
<message><source>Welcome to Furnel</source>
<translation>Willkommen bei Furnel</translation></message>
<message><source>{0} of yours, {1}</source>
<translation>{0} von dir, {1}</translation></message>
<message><source>Open a game, or begin with the made-up one</source>
<translation>Öffne ein Spiel, oder fang mit dem erfundenen an</translation></message>
<message><source>Tarnlight Ferry is made</source>
<translation>Tarnlight Ferry ist gemacht</translation></message>
<message><source>it ended with {0}</source>
<translation>es endete mit {0}</translation></message>
<message><source>{0}: not one of yours; on Try you can go on from it</source>
<translation>{0}: keine von deinen; unter Testen kannst du an ihr weiterarbeiten</translation></message>
<message><source>Open it</source>
<translation>Öffnen</translation></message>
<message><source>{n} mod</source>
<translation>{n} Mod</translation></message>
<message><source>{n} mods</source>
<translation>{n} Mods</translation></message>
<message><source>{n} game</source>
<translation>{n} Spiel</translation></message>
<message><source>{n} games</source>
<translation>{n} Spiele</translation></message>
<message><source>Open a game. Every picture, sound and value in its archives lies on one wall.</source>
<translation>Öffne ein Spiel. Jedes Bild, Geräusch und jeder Wert in seinen Archiven liegt auf einer Wand.</translation></message>
<message><source>Drop your file on an original. It is brought to the right size, format, length and loudness.</source>
<translation>Zieh deine Datei auf ein Original. Sie wird auf die richtige Größe, Länge, Lautheit und das richtige Format gebracht.</translation></message>
<message><source>Build and try</source>
<translation>Bauen und testen</translation></message>
<message><source>The mod is built, put into the game, seen before and after, and taken off without a trace.</source>
<translation>Die Mod wird gebaut, ins Spiel gelegt, vorher und nachher angesehen und spurlos wieder herausgenommen.</translation></message>
<message><source>built, installed</source>
<translation>gebaut, installiert</translation></message>
<message><source>built, an older one installed</source>
<translation>gebaut, eine ältere installiert</translation></message>
<message><source>built, installed, off</source>
<translation>gebaut, installiert, aus</translation></message>
<message><source>built, not installed</source>
<translation>gebaut, nicht installiert</translation></message>
<message><source>{0} of {1} fit</source>
<translation>{0} von {1} passen</translation></message>
<message><source>no swaps yet</source>
<translation>noch keine Tausche</translation></message>
<message><source>{0} on</source>
<translation>{0} an</translation></message>
<message><source>no game open</source>
<translation>kein Spiel offen</translation></message>
<message><source>Remembering the place</source>
<translation>Den Platz merken</translation></message>
<message><source>no mod open</source>
<translation>keine Mod offen</translation></message>
<message><source>not built yet</source>
<translation>noch nicht gebaut</translation></message>
<message><source>stale: {0} changed</source>
<translation>veraltet: {0} geändert</translation></message>
<message><source>being looked at</source>
<translation>wird angesehen</translation></message>
<message><source>There is no mod yet to put the swap in: start one with New mod ({0})</source>
<translation>Noch gibt es keine Mod für den Tausch: beginne eine mit Neue Mod ({0})</translation></message>
<message><source>Swapping {0}</source>
<translation>{0} wird getauscht</translation></message>
<message><source>Filling {0=}</source>
<translation>{0} wird gefüllt</translation></message>
<message><source>Keeping the picture</source>
<translation>Das Bild behalten</translation></message>
<message><source>Use the copied steps in {0=}</source>
<translation>Die kopierten Schritte in {0} nehmen</translation></message>
<message><source>Taking frames</source>
<translation>Bilder nehmen</translation></message>
<message><source>Looking for {0}</source>
<translation>Suche nach {0}</translation></message>
<message><source>Keeping yours in {0}</source>
<translation>Deins in {0} behalten</translation></message>
<message><source>Take {0} from {1}</source>
<translation>{0} von {1} nehmen</translation></message>
<message><source>Taking a strip</source>
<translation>Eine Farbreihe nehmen</translation></message>
<message><source>Taking the game's {0}</source>
<translation>Das des Spiels nehmen: {0}</translation></message>
<message><source>Opening {0}</source>
<translation>{0} wird geöffnet</translation></message>
<message><source>Swapping kin</source>
<translation>Verwandte tauschen</translation></message>
<message><source>{0} of {1} could not be used: {2}</source>
<translation>{0} von {1} gingen nicht: {2}</translation></message>
<message><source>Swapping several</source>
<translation>Mehrere tauschen</translation></message>
<message><source>{0} begins as the game's own: add steps, or open its source</source>
<translation>{0} beginnt als das des Spiels: füge Schritte hinzu, oder öffne seine Quelle</translation></message>
<message><source>Beginning with the game's own</source>
<translation>Mit dem des Spiels beginnen</translation></message>
<message><source>Taking {0}</source>
<translation>{0} wird genommen</translation></message>
<message><source>Gathering sources</source>
<translation>Quellen einsammeln</translation></message>
<message><source>Remove {0=}</source>
<translation>{0} entfernen</translation></message>
<message><source>{0=} is</source>
<translation>{0} ist</translation></message>
<message><source>{0} are</source>
<translation>{0} sind</translation></message>
<message><source>{0} the game's own again</source>
<translation>{0} wieder das des Spiels</translation></message>
<message><source>{0=} is laid over your {1} of {2}</source>
<translation>{0=} liegt über {1} von dir in {2}</translation></message>
<message><source>Fill {0=} with {1}</source>
<translation>{0=} füllen mit {1}</translation></message>
<message><source>Copied {0} of {1}</source>
<translation>{0} von {1} kopiert</translation></message>
<message><source>Nothing here takes other steps than it has</source>
<translation>Nichts hier nimmt andere Schritte, als es hat</translation></message>
<message><source>Frames of {0}</source>
<translation>Bilder von {0}</translation></message>
<message><source>{0} as frames</source>
<translation>{0} als Bilder</translation></message>
<message><source>Point {0} to {1}</source>
<translation>{0} auf {1} zeigen lassen</translation></message>
<message><source>Keep yours in {0}</source>
<translation>Deins in {0} behalten</translation></message>
<message><source>It has these colours already</source>
<translation>Es hat diese Farben schon</translation></message>
<message><source>Drawing {0}</source>
<translation>{0} wird gezeichnet</translation></message>
<message><source>; comments and spacing stay the game's</source>
<translation>; Kommentare und Abstände bleiben die des Spiels</translation></message>
<message><source>Edit the text of {0}{1}</source>
<translation>Den Text von {0} bearbeiten{1}</translation></message>
<message><source>Open {0}</source>
<translation>{0} öffnen</translation></message>
<message><source>Swap {0} of {1}</source>
<translation>{0} von {1} tauschen</translation></message>
<message><source>{0} swapped and fitted</source>
<translation>{0} getauscht und angepasst</translation></message>
<message><source>Begin with the game's own {0}</source>
<translation>Mit dem des Spiels beginnen: {0}</translation></message>
<message><source>{0} read from the mod's own folder now</source>
<translation>{0} wird jetzt aus dem Ordner der Mod gelesen</translation></message>
<message><source>All sources are in it already</source>
<translation>Alle Quellen sind schon darin</translation></message>
<message><source>{0} could not be fitted: {1}</source>
<translation>{0} ließ sich nicht anpassen: {1}</translation></message>
<message><source>Fit {0}</source>
<translation>{0} anpassen</translation></message>
<message><source>{0} fitted anew</source>
<translation>{0} neu angepasst</translation></message>
<message><source>Fitting</source>
<translation>Anpassen</translation></message>
<message><source>Only what the file has</source>
<translation>Nur was die Datei hat</translation></message>
<message><source>{0} has no steps to copy</source>
<translation>{0} hat keine Schritte zu kopieren</translation></message>
<message><source>Following the update</source>
<translation>Der Aktualisierung folgen</translation></message>
<message><source>Matching {0}</source>
<translation>{0} wird angeglichen</translation></message>
<message><source>Swapping</source>
<translation>Tauschen</translation></message>
<message><source>Fit {0=}</source>
<translation>{0} anpassen</translation></message>
<message><source>Other things were changed since: take them back first</source>
<translation>Seither wurde anderes geändert: nimm das zuerst zurück</translation></message>
<message><source>{0} pasted {1}.png</source>
<translation>{0} eingefügt {1}.png</translation></message>
<message><source>{n} step</source>
<translation>{n} Schritt</translation></message>
<message><source>{n} steps</source>
<translation>{n} Schritte</translation></message>
<message><source>its content is not in the game any more</source>
<translation>sein Inhalt ist nicht mehr im Spiel</translation></message>
<message><source>Choose another original</source>
<translation>Wähle ein anderes Original</translation></message>
<message><source>its content is {0} now, and the mod swaps that already</source>
<translation>sein Inhalt ist jetzt {0}, und die Mod tauscht das schon</translation></message>
<message><source>Remove one of the two swaps</source>
<translation>Entferne einen der beiden Tausche</translation></message>
<message><source>its figure</source>
<translation>seine Figur</translation></message>
<message><source>{0=} has the colours of {1}</source>
<translation>{0} hat die Farben von {1}</translation></message>
<message><source>{n} kin</source>
<translation>{n} Verwandte</translation></message>
<message><source>Every command by its name</source>
<translation>Jeder Befehl nach seinem Namen</translation></message>
<message><source>Another game</source>
<translation>Ein anderes Spiel</translation></message>
<message><source>Another mod</source>
<translation>Eine andere Mod</translation></message>
<message><source>Do anything</source>
<translation>Irgendetwas tun</translation></message>
<message><source>The mods are as in {0=}</source>
<translation>Die Mods sind wie in {0}</translation></message>
<message><source>Kept as {0=}</source>
<translation>Als {0} behalten</translation></message>
<message><source>Took {0}</source>
<translation>{0} genommen</translation></message>
<message><source>Keep these mods as a load-out</source>
<translation>Diese Mods als Satz behalten</translation></message>
<message><source>Somebody's load-out</source>
<translation>Der Mod-Satz eines anderen</translation></message>
<message><source>{0=} for somebody</source>
<translation>{0} für jemanden</translation></message>
<message><source>Forgot {0=}; the mods stay as they are</source>
<translation>{0} vergessen; die Mods bleiben, wie sie sind</translation></message>
<message><source>Keep the mods as they stand…</source>
<translation>Die Mods behalten, wie sie stehen…</translation></message>
<message><source>Take one from a file…</source>
<translation>Einen aus einer Datei nehmen…</translation></message>
<message><source>Give one to somebody</source>
<translation>Jemandem einen geben</translation></message>
<message><source>Forget</source>
<translation>Vergessen</translation></message>
<message><source>Keep them</source>
<translation>Behalten</translation></message>
<message><source>Written to {0=}</source>
<translation>Nach {0} geschrieben</translation></message>
<message><source>They make the same of it.</source>
<translation>Sie machen dasselbe daraus.</translation></message>
<message><source>They change different places of it: the bridge has them all.</source>
<translation>Sie ändern verschiedene Stellen davon: die Brücke hat sie alle.</translation></message>
<message><source>It was made for an older version of the game: the bridge lays what it changes over the game of today.</source>
<translation>Sie ist für eine ältere Version des Spiels gemacht: Die Brücke legt, was sie ändert, über das Spiel von heute.</translation></message>
<message><source>They want different things.</source>
<translation>Sie wollen Verschiedenes.</translation></message>
<message><source>{0} on, {1}</source>
<translation>{0} an, {1}</translation></message>
<message><source>Make the bridge</source>
<translation>Brücke machen</translation></message>
<message><source>A mod of all that they change, last in the load order</source>
<translation>Eine Mod aus allem, was sie ändern, als letzte geladen</translation></message>
<message><source>Take the bridge off</source>
<translation>Brücke abnehmen</translation></message>
<message><source>The other mods stay as they are</source>
<translation>Die anderen Mods bleiben, wie sie sind</translation></message>
<message><source>No two mods touch the same thing.</source>
<translation>Keine zwei Mods berühren dasselbe.</translation></message>
<message><source>Filled: what the game shows.  Half: together with others.  Outline: hidden by another mod.</source>
<translation>Gefüllt: was das Spiel zeigt.  Halb: zusammen mit anderen.  Umriss: von einer anderen Mod verdeckt.</translation></message>
<message><source>Looking where mods meet</source>
<translation>Nachsehen, wo Mods sich treffen</translation></message>
<message><source>, {0} not decided</source>
<translation>, {0} nicht entschieden</translation></message>
<message><source>Filled: what the game shows. Half: seen together in the bridge. Outline: hidden by another mod. Drag a mod's name to change the load order</source>
<translation>Gefüllt: was das Spiel zeigt. Halb: in der Brücke mit anderen zu sehen. Umriss: von einer anderen Mod verdeckt. Zieh den Namen einer Mod, um die Ladereihenfolge zu ändern</translation></message>
<message><source>What meets here</source>
<translation>Was sich hier trifft</translation></message>
<message><source>{n} shared asset</source>
<translation>{n} geteiltes Asset</translation></message>
<message><source>{n} shared assets</source>
<translation>{n} geteilte Assets</translation></message>
<message><source>Looking at pictures</source>
<translation>Bilder werden angesehen</translation></message>
<message><source>Again: stop</source>
<translation>Noch einmal: anhalten</translation></message>
<message><source>shared asset</source>
<translation>geteiltes Asset</translation></message>
<message><source>; the bridge has all of it</source>
<translation>; die Brücke hat alles davon</translation></message>
<message><source>; the bridge is stale: {0}</source>
<translation>; die Brücke ist veraltet: {0}</translation></message>
<message><source>Make it anew</source>
<translation>Neu machen</translation></message>
<message><source>the game</source>
<translation>das Spiel</translation></message>
<message><source>Hear {0=}'s</source>
<translation>{0} anhören</translation></message>
<message><source>Hear the game's</source>
<translation>Das des Spiels anhören</translation></message>
<message><source>the game has {0=}</source>
<translation>das Spiel hat {0}</translation></message>
<message><source>Let this mod have its way here; it is remembered</source>
<translation>Hier soll sich diese Mod durchsetzen; das wird gemerkt</translation></message>
<message><source>not decided: the last mod has its way</source>
<translation>nicht entschieden: die letzte Mod setzt sich durch</translation></message>
<message><source>the whole file</source>
<translation>die ganze Datei</translation></message>
<message><source>… and {0} more</source>
<translation>… und {0} weitere</translation></message>
<message><source>Drag to change the order, or Alt+Up and Alt+Down; Enter switches a mod on or off</source>
<translation>Zieh, um die Reihenfolge zu ändern, oder Alt+Auf und Alt+Ab; Eingabe schaltet eine Mod ein oder aus</translation></message>
<message><source>These mods stand in the place of the game's own files; Remove brings those back</source>
<translation>Diese Mods stehen an der Stelle der Dateien des Spiels; Entfernen bringt jene zurück</translation></message>
<message><source>from mod to mod</source>
<translation>von Mod zu Mod</translation></message>
<message><source>Alt and Up, Down</source>
<translation>Alt und Auf, Ab</translation></message>
<message><source>moves it in the load order</source>
<translation>versetzt sie in der Ladereihenfolge</translation></message>
<message><source>on and off</source>
<translation>an und aus</translation></message>
<message><source>the winner</source>
<translation>die oberste</translation></message>
<message><source>{0} of {1} from the winner</source>
<translation>{0} von {1}, von oben</translation></message>
<message><source>Load order</source>
<translation>Ladereihenfolge</translation></message>
<message><source>{0} · {1} files</source>
<translation>{0} · {1} Dateien</translation></message>
<message><source>the game, {0} assets</source>
<translation>das Spiel, {0} Assets</translation></message>
<message><source>no mods</source>
<translation>keine Mods</translation></message>
<message><source>Look at its commands…</source>
<translation>Seine Befehle ansehen…</translation></message>
<message><source>What this game's profile wants to run</source>
<translation>Was das Profil dieses Spiels ausführen will</translation></message>
<message><source>How is it started?…</source>
<translation>Wie wird es gestartet? …</translation></message>
<message><source>Say on This game how it is started</source>
<translation>Unter Dieses Spiel sagen, wie es gestartet wird</translation></message>
<message><source>Draw again</source>
<translation>Neu zeichnen</translation></message>
<message><source>Take the chosen mod out of the game</source>
<translation>Die gewählte Mod aus dem Spiel nehmen</translation></message>
<message><source>Go on from it…</source>
<translation>Daran weiterarbeiten…</translation></message>
<message><source>A mod of yours with all that this one has, and credit for who made it</source>
<translation>Eine Mod von dir mit allem, was diese hat, und Nennung derer, die sie gemacht haben</translation></message>
<message><source>Named sets of mods in their order, to switch as a whole and to hand on</source>
<translation>Benannte Sätze von Mods in ihrer Reihenfolge, zum Umschalten im Ganzen und zum Weitergeben</translation></message>
<message><source>Drawing the stills</source>
<translation>Die Standbilder werden gezeichnet</translation></message>
<message><source>This game's profile did not come with Furnel and wants to run commands:
look at them on the right.</source>
<translation>Das Profil dieses Spiels kam nicht mit Furnel und will Befehle ausführen:
sieh sie rechts an.</translation></message>
<message><source>How this game is started is not known yet: say it on This game.
Or install the mod, and start it yourself.</source>
<translation>Wie dieses Spiel gestartet wird, ist noch nicht bekannt: unter Dieses Spiel kann es gesagt werden.
Oder den Mod installieren und es selbst starten.</translation></message>
<message><source>What {0=} wants to run</source>
<translation>Was {0} ausführen will</translation></message>
<message><source>{0}

They run as you, with all your rights.</source>
<translation>{0}

Sie laufen als du, mit all deinen Rechten.</translation></message>
<message><source>Allow these</source>
<translation>Erlauben</translation></message>
<message><source>Taking {0=} over</source>
<translation>{0} wird übernommen</translation></message>
<message><source>{0} touched by several mods</source>
<translation>{0} von mehreren Mods berührt</translation></message>
<message><source>No mod touches what another does</source>
<translation>Keine Mod berührt, was eine andere berührt</translation></message>
<message><source>The game's word</source>
<translation>Was das Spiel sagt</translation></message>
<message><source>the game knows no such asset</source>
<translation>das Spiel kennt kein solches Asset</translation></message>
<message><source>this mod is not loaded</source>
<translation>diese Mod ist nicht geladen</translation></message>
<message><source>Which scene the stills show</source>
<translation>Welche Szene die Standbilder zeigen</translation></message>
<message><source>Scene</source>
<translation>Szene</translation></message>
<message><source>With your mods, in this scene</source>
<translation>Mit deinen Mods, in dieser Szene</translation></message>
<message><source>What several mods change, and the bridge</source>
<translation>Was mehrere Mods ändern, und die Brücke</translation></message>
<message><source>Somebody else's, as a ZIP, 7z, TAR or folder; or drop it here</source>
<translation>Die eines anderen, als ZIP, 7z, TAR oder Ordner; oder zieh sie hierher</translation></message>
<message><source>The stack</source>
<translation>Der Stapel</translation></message>
<message><source>The game's own word</source>
<translation>Was das Spiel selbst sagt</translation></message>
<message><source>THE GAME'S OWN WORD</source>
<translation>WAS DAS SPIEL SELBST SAGT</translation></message>
<message><source>The game draws the scene…</source>
<translation>Das Spiel zeichnet die Szene…</translation></message>
<message><source>This game draws no stills: install the mod, and start the game.</source>
<translation>Dieses Spiel zeichnet keine Standbilder: den Mod installieren und das Spiel starten.</translation></message>
<message><source>Seen over all others</source>
<translation>Über allen anderen zu sehen</translation></message>
<message><source>Below all others</source>
<translation>Unter allen anderen</translation></message>
<message><source>Take it off…</source>
<translation>Abnehmen…</translation></message>
<message><source>An empty folder to go on from {0=} in</source>
<translation>Ein leerer Ordner, um an {0} weiterzuarbeiten</translation></message>
<message><source>The bridge lets them live together</source>
<translation>Die Brücke lässt sie zusammen leben</translation></message>
<message><source>The bridge is stale: {0}</source>
<translation>Die Brücke ist veraltet: {0}</translation></message>
<message><source>No enabled mod changes anything.</source>
<translation>Keine eingeschaltete Mod ändert etwas.</translation></message>
<message><source>the upper one wins</source>
<translation>die obere setzt sich durch</translation></message>
<message><source>in the place of the game's files</source>
<translation>an der Stelle der Dateien des Spiels</translation></message>
<message><source>Left out, because nothing of the game is like it: {0}</source>
<translation>Weggelassen, weil nichts im Spiel so ist: {0}</translation></message>
<message><source>Take {0} off</source>
<translation>{0} abnehmen</translation></message>
<message><source>{0} of {1} modded assets accepted</source>
<translation>{0} von {1} Assets angenommen</translation></message>
<message><source>No mod is switched on</source>
<translation>Keine Mod ist eingeschaltet</translation></message>
<message><source>Stills before and after</source>
<translation>Standbilder vorher und nachher</translation></message>
<message><source>Hold the mouse button to see before and after change places</source>
<translation>Halt die Maustaste, um Vorher und Nachher zu vertauschen</translation></message>
<message><source>before: the game alone</source>
<translation>vorher: das Spiel allein</translation></message>
<message><source>after: with the enabled mods</source>
<translation>nachher: mit den eingeschalteten Mods</translation></message>
<message><source>the same as in {0}</source>
<translation>dasselbe wie in {0}</translation></message>
<message><source>other places of it are changed by {0}: make the bridge afterwards</source>
<translation>andere Stellen davon ändert {0}: mach danach die Brücke</translation></message>
<message><source>something else than in {0}: this one would win</source>
<translation>etwas anderes als in {0}: diese würde sich durchsetzen</translation></message>
<message><source>Install it</source>
<translation>Installieren</translation></message>
<message><source>Into the mods folder, switched on, last in the load order</source>
<translation>In den Mod-Ordner, eingeschaltet, als letzte geladen</translation></message>
<message><source>Another one…</source>
<translation>Eine andere…</translation></message>
<message><source>Look into another mod</source>
<translation>In eine andere Mod sehen</translation></message>
<message><source>Somebody's mod</source>
<translation>Die Mod eines anderen</translation></message>
<message><source>Looking into a mod</source>
<translation>In eine Mod sehen</translation></message>
<message><source>there is no file about it: it was told by the paths in it</source>
<translation>keine Datei sagt etwas über sie: erkannt an den Pfaden darin</translation></message>
<message><source>called {0}</source>
<translation>namens {0}</translation></message>
<message><source>{0} of the game in another form.</source>
<translation>{0} des Spiels in anderer Form.</translation></message>
<message><source>Nothing of it is run. Everything can be taken off again.</source>
<translation>Nichts davon wird ausgeführt. Alles lässt sich wieder herausnehmen.</translation></message>
<message><source>What is in the mod</source>
<translation>Was in der Mod ist</translation></message>
<message><source>BEFORE IT IS INSTALLED</source>
<translation>EHE SIE INSTALLIERT WIRD</translation></message>
<message><source>Looking into it…</source>
<translation>Es wird hineingesehen…</translation></message>
<message><source>It cannot be used</source>
<translation>Sie lässt sich nicht nehmen</translation></message>
<message><source>the game has nothing of that name</source>
<translation>das Spiel hat nichts dieses Namens</translation></message>
<message><source>{0} that the game does not have: a readme, or something new.</source>
<translation>{0}, die das Spiel nicht hat: eine Liesmich-Datei oder etwas Neues.</translation></message>
<message><source>It is in the game already; {0} would be others.</source>
<translation>Sie ist schon im Spiel; anders wären: {0}.</translation></message>
<message><source>Somebody put that there by hand. It comes back when you take this one off.</source>
<translation>Jemand hat das von Hand dorthin gelegt. Es kommt zurück, wenn du diese abnimmst.</translation></message>
<message><source>Open its game first</source>
<translation>Öffne zuerst ihr Spiel</translation></message>
<message><source>Update it</source>
<translation>Aktualisieren</translation></message>
<message><source>in the place of the game's</source>
<translation>an der Stelle des Eigenen im Spiel</translation></message>
<message><source>take back</source>
<translation>Zurücknehmen</translation></message>
<message><source>do again</source>
<translation>Wiederholen</translation></message>
<message><source>Done again</source>
<translation>Wiederholt</translation></message>
<message><source>Taken back</source>
<translation>Zurückgenommen</translation></message>
<message><source>There is nothing to {0}</source>
<translation>Es gibt nichts zum {0}</translation></message>
<message><source>Nothing to {0} here</source>
<translation>Hier gibt es nichts zum {0}</translation></message>
<message><source>There is nothing to {0} here</source>
<translation>Hier gibt es nichts zum {0}</translation></message>
<message><source>The load order has nothing to take back; changes of the mod are taken back in Fit</source>
<translation>An der Ladereihenfolge gibt es nichts zurückzunehmen; Änderungen der Mod werden in Anpassen zurückgenommen</translation></message>
<message><source>In the place of its files</source>
<translation>An der Stelle seiner Dateien</translation></message>
<message><source>The game knows nothing of mods: changed files stand in the place of its own, which Furnel keeps and brings back.</source>
<translation>Das Spiel weiß nichts von Mods: geänderte Dateien stehen an der Stelle seiner eigenen, die Furnel aufhebt und zurückbringt.</translation></message>
<message><source>In a folder that mirrors them</source>
<translation>In einem Ordner, der sie spiegelt</translation></message>
<message><source>The game looks into another folder first, for files under the same paths as its own.</source>
<translation>Das Spiel sieht zuerst in einen anderen Ordner, nach Dateien unter denselben Pfaden wie seine eigenen.</translation></message>
<message><source>As loose files in a mods folder</source>
<translation>Als lose Dateien in einem Mod-Ordner</translation></message>
<message><source>The game has a mods folder: each mod is a folder in it, with its files under their inner paths and a load order.</source>
<translation>Das Spiel hat einen Mod-Ordner: jede Mod ist ein Ordner darin, mit ihren Dateien unter ihren inneren Pfaden und einer Ladereihenfolge.</translation></message>
<message><source>Where mods go: a folder in the game's, or in your own, such as ~/.moss/mods or $XDG_DATA_HOME/moss</source>
<translation>Wohin Mods kommen: ein Ordner in dem des Spiels oder in deinem eigenen, wie ~/.moss/mods oder $XDG_DATA_HOME/moss</translation></message>
<message><source>In another way, which the profile's file says.</source>
<translation>Auf eine andere Art, die in der Datei des Profils steht.</translation></message>
<message><source>Their folder</source>
<translation>Ihr Ordner</translation></message>
<message><source>Close this</source>
<translation>Das schließen</translation></message>
<message><source>Close the notice</source>
<translation>Die Meldung schließen</translation></message>
<message><source>Hue</source>
<translation>Farbton</translation></message>
<message><source>Strength</source>
<translation>Sättigung</translation></message>
<message><source>Six hex digits</source>
<translation>Sechs Hexziffern</translation></message>
<message><source>From the window</source>
<translation>Aus dem Fenster</translation></message>
<message><source>Take the colour of any pixel that Furnel shows: click it next</source>
<translation>Die Farbe irgendeines Pixels nehmen, das Furnel zeigt: klick als Nächstes darauf</translation></message>
<message><source>Used before</source>
<translation>Schon benutzt</translation></message>
<message><source>Keep the colour as it was</source>
<translation>Die Farbe behalten, wie sie war</translation></message>
<message><source>Use this colour</source>
<translation>Diese Farbe nehmen</translation></message>
<message><source>Desktop</source>
<translation>Schreibtisch</translation></message>
<message><source>Documents</source>
<translation>Dokumente</translation></message>
<message><source>Downloads</source>
<translation>Downloads</translation></message>
<message><source>Music</source>
<translation>Musik</translation></message>
<message><source>Videos</source>
<translation>Videos</translation></message>
<message><source>a folder's path</source>
<translation>der Pfad eines Ordners</translation></message>
<message><source>Play the beginning  (Space)</source>
<translation>Den Anfang abspielen  (Leertaste)</translation></message>
<message><source>Use this folder</source>
<translation>Diesen Ordner nehmen</translation></message>
<message><source>Save</source>
<translation>Speichern</translation></message>
<message><source>The folder around this one  (Backspace)</source>
<translation>Der Ordner um diesen  (Rücktaste)</translation></message>
<message><source>Places</source>
<translation>Orte</translation></message>
<message><source>File name</source>
<translation>Dateiname</translation></message>
<message><source>a name for the file</source>
<translation>ein Name für die Datei</translation></message>
<message><source>What is shown</source>
<translation>Was zu sehen ist</translation></message>
<message><source>Everything</source>
<translation>Alles</translation></message>
<message><source>This folder cannot be read: {0}</source>
<translation>Dieser Ordner lässt sich nicht lesen: {0}</translation></message>
<message><source>There is nothing to hear with on this machine</source>
<translation>Auf diesem Rechner gibt es nichts zum Anhören</translation></message>
<message><source>Nothing to choose in here</source>
<translation>Hier ist nichts zu wählen</translation></message>
<message><source>There is no {0}</source>
<translation>Es gibt kein {0}</translation></message>
<message><source>{0=} is there already</source>
<translation>{0} ist schon da</translation></message>
<message><source>Replace it</source>
<translation>Ersetzen</translation></message>
<message><source>Home</source>
<translation>Persönlicher Ordner</translation></message>
<message><source>There is no folder {0}</source>
<translation>Einen Ordner {0} gibt es nicht</translation></message>
<message><source>Flow strip</source>
<translation>Stationen</translation></message>
<message><source>{0} × {1} pixels</source>
<translation>{0} × {1} Pixel</translation></message>
<message><source>{n} channel</source>
<translation>{n} Kanal</translation></message>
<message><source>{n} channels</source>
<translation>{n} Kanäle</translation></message>
<message><source>{0} s, {1} Hz, {2}</source>
<translation>{0} s, {1} Hz, {2}</translation></message>
<message><source>it cannot be read</source>
<translation>es lässt sich nicht lesen</translation></message>
<message><source>Stop this job; nothing is left half-done</source>
<translation>Diese Aufgabe anhalten; nichts bleibt halb fertig</translation></message>
<message><source>, and {0}</source>
<translation>, und {0}</translation></message>
<message><source>{n} other job</source>
<translation>{n} weitere Aufgabe</translation></message>
<message><source>{n} other jobs</source>
<translation>{n} weitere Aufgaben</translation></message>
<message><source>other job</source>
<translation>weitere Aufgabe</translation></message>
<message><source>Click to bring it back</source>
<translation>Klick, um es zurückzuholen</translation></message>
<message><source>Drag for its width; double-click to fold it away</source>
<translation>Zieh, um die Breite zu ändern; ein Doppelklick klappt es ein</translation></message>
<message><source>folded away</source>
<translation>eingeklappt</translation></message>
<message><source>What do you want to do, or to find?</source>
<translation>Was willst du tun oder finden?</translation></message>
<message><source>Commands</source>
<translation>Befehle</translation></message>
<message><source>Here</source>
<translation>Hier</translation></message>
<message><source>{0=} uses files outside its own folder that nobody chose on this machine:

{1}</source>
<translation>{0} braucht Dateien außerhalb des eigenen Ordners, die auf diesem Rechner niemand gewählt hat:

{1}</translation></message>
<message><source>Files from elsewhere</source>
<translation>Dateien von anderswo</translation></message>
<message><source>Let it read these</source>
<translation>Lesen lassen</translation></message>
<message><source>
and {0} more</source>
<translation>
und {0} weitere</translation></message>
<message><source>Which game is it?</source>
<translation>Welches Spiel ist es?</translation></message>
<message><source>Several profiles know {0=}</source>
<translation>Mehrere Profile kennen {0=}</translation></message>
<message><source>{0}, line {1}</source>
<translation>{0}, Zeile {1}</translation></message>
<message><source>{0}: cancelled</source>
<translation>{0}: abgebrochen</translation></message>
<message><source>mods never go there: name the game's own folder</source>
<translation>dorthin kommen Mods nie: nenne den eigenen Ordner des Spiels</translation></message>
<message><source>it needs a path, or is a strip</source>
<translation>es braucht einen Pfad oder ist eine Farbreihe</translation></message>
<message><source>like has as many paths as path</source>
<translation>like hat so viele Pfade wie path</translation></message>
<message><source>it needs a value that names the other's asset, or like</source>
<translation>es braucht einen Wert, der das Asset des anderen nennt, oder like</translation></message>
<message><source>Changing what is known of a game</source>
<translation>Ändern, was über ein Spiel bekannt ist</translation></message>
<message><source>it is no command ({0})</source>
<translation>es ist kein Befehl ({0})</translation></message>
<message><source>Close the quotes, as in a terminal</source>
<translation>Die Anführungszeichen schließen, wie in einem Terminal</translation></message>
<message><source>it does not say what is set to what</source>
<translation>es sagt nicht, was worauf gesetzt wird</translation></message>
<message><source>Write NAME=value, one a line</source>
<translation>NAME=Wert schreiben, je Zeile einen</translation></message>
<message><source>other file</source>
<translation>andere Datei</translation></message>
<message><source>Looking at the game's files</source>
<translation>Die Dateien des Spiels ansehen</translation></message>
<message><source>Looking for sheets that texts tell of</source>
<translation>Bögen werden gesucht, von denen Texte sprechen</translation></message>
<message><source>begins like {0} and does not hold together: packed or masked?</source>
<translation>beginnt wie {0} und hängt nicht zusammen: gepackt oder maskiert?</translation></message>
<message><source>part of the program, it seems</source>
<translation>anscheinend Teil des Programms</translation></message>
<message><source>nothing in it is known</source>
<translation>nichts darin ist bekannt</translation></message>
<message><source>the new profile</source>
<translation>das neue Profil</translation></message>
<message><source>Describing a game</source>
<translation>Ein Spiel beschreiben</translation></message>
<message><source>; {0} told by texts</source>
<translation>; {0} von Texten genannt</translation></message>
<message><source>; read as records: {0}</source>
<translation>; als Datensätze gelesen: {0}</translation></message>
<message><source>{0} inside</source>
<translation>{0} darin</translation></message>
<message><source>Keeping a profile</source>
<translation>Ein Profil behalten</translation></message>
<message><source>an archive</source>
<translation>ein Archiv</translation></message>
<message><source>bare data</source>
<translation>bloße Daten</translation></message>
<message><source>a program</source>
<translation>ein Programm</translation></message>
<message><source>too small to hold much</source>
<translation>zu klein, um viel zu enthalten</translation></message>
<message><source>there is nothing in it that Furnel can open</source>
<translation>darin ist nichts, was Furnel öffnen kann</translation></message>
<message><source>Work out one of its archives first, then look again</source>
<translation>Ergründe zuerst eins seiner Archive, dann sieh noch einmal nach</translation></message>
<message><source>{0} says so</source>
<translation>{0} sagt es</translation></message>
<message><source>there is a game of that name already</source>
<translation>ein Spiel dieses Namens gibt es schon</translation></message>
<message><source>Give it another name, or edit the one in your profiles folder</source>
<translation>Gib ihm einen anderen Namen, oder bearbeite das in deinem Profilordner</translation></message>
<message><source>{n} sheet</source>
<translation>{n} Bogen</translation></message>
<message><source>{n} sheets</source>
<translation>{n} Bögen</translation></message>
<message><source>belongs to {0=}</source>
<translation>gehört zu {0}</translation></message>
<message><source>Looking at how texts are written</source>
<translation>Es wird geschaut, wie Texte geschrieben sind</translation></message>
<message><source>Changing how texts are read</source>
<translation>Ändern, wie Texte gelesen werden</translation></message>
<message><source>Rebuilding an archive</source>
<translation>Ein Archiv neu packen</translation></message>
<message><source>Looking for the mods folder</source>
<translation>Den Mod-Ordner suchen</translation></message>
<message><source>it is the game's own file</source>
<translation>es ist die Datei des Spiels selbst</translation></message>
<message><source>it leads out of the game's folder</source>
<translation>es führt aus dem Ordner des Spiels hinaus</translation></message>
<message><source>Correct the profile, or take the link away: Furnel writes nowhere else</source>
<translation>Berichtige das Profil, oder nimm die Verknüpfung weg: Furnel schreibt nirgends sonst</translation></message>
<message><source>Opening a game</source>
<translation>Ein Spiel öffnen</translation></message>
<message><source>there is no {0}</source>
<translation>es gibt kein {0}</translation></message>
<message><source>The install is incomplete: let the game repair it</source>
<translation>Die Installation ist unvollständig: lass das Spiel sie reparieren</translation></message>
<message><source>two rules of its profile name it: {0} and {1}</source>
<translation>zwei Regeln seines Profils nennen es: {0} und {1}</translation></message>
<message><source>Let each file be an archive by one rule of [[archives]]</source>
<translation>Lass jede Datei nach einer Regel von [[archives]] ein Archiv sein</translation></message>
<message><source>Reading a loop record</source>
<translation>Einen Schleifen-Datensatz lesen</translation></message>
<message><source>it needs fields called start and end, or start and length</source>
<translation>er braucht Felder namens start und end, oder start und length</translation></message>
<message><source>a tempo in bytes is a float of 4 or 8 of them</source>
<translation>ein Tempo in Bytes ist eine Gleitkommazahl aus 4 oder 8 davon</translation></message>
<message><source>it goes from frame {0} to {1}</source>
<translation>er geht von Frame {0} bis {1}</translation></message>
<message><source>Application</source>
<translation>Application</translation></message>
<message><source>Path</source>
<translation>Path</translation></message>
<message><source>Desktop Entry</source>
<translation>Desktop Entry</translation></message>
<message><source>Type</source>
<translation>Type</translation></message>
<message><source>Terminal</source>
<translation>Terminal</translation></message>
<message><source>Categories</source>
<translation>Categories</translation></message>
<message><source>Exec</source>
<translation>Exec</translation></message>
<message><source>{0} is no list</source>
<translation>{0} ist keine Liste</translation></message>
<message><source>XML has one outermost element: let all keys begin with the same name</source>
<translation>XML hat ein äußerstes Element: lass alle Schlüssel mit demselben Namen beginnen</translation></message>
<message><source>an entry of {0} has no text as its {1}</source>
<translation>ein Eintrag von {0} hat keinen Text als {1}</translation></message>
<message><source>Furnel says nothing called {0} of a mod: it says {1}</source>
<translation>Furnel sagt von einer Mod nichts namens {0}: es sagt {1}</translation></message>
<message><source>it is not built as the profile says</source>
<translation>es ist nicht gebaut, wie das Profil sagt</translation></message>
<message><source>Writing the load order</source>
<translation>Die Ladereihenfolge schreiben</translation></message>
<message><source>in {0} {1} needs what it lies in before it, as in 'mod.name'</source>
<translation>in {0} braucht {1} davor, worin es liegt, wie in 'mod.name'</translation></message>
<message><source>Correct or delete the file</source>
<translation>Berichtige oder lösche die Datei</translation></message>
<message><source>its profile came with Furnel</source>
<translation>sein Profil kam mit Furnel</translation></message>
<message><source>Put a profile of your own with the id {0} into {1}</source>
<translation>Ein eigenes Profil mit der Kennung {0} nach {1} legen</translation></message>
<message><source>Mend the file, then try again</source>
<translation>Die Datei richten, dann noch einmal versuchen</translation></message>
<message><source>Reading a profile</source>
<translation>Ein Profil lesen</translation></message>
<message><source>; {0} cannot be read: {1}</source>
<translation>; {0} ist nicht zu lesen: {1}</translation></message>
<message><source>it is the name of a file, without folders</source>
<translation>es ist der Name einer Datei, ohne Ordner</translation></message>
<message><source>Choosing a profile</source>
<translation>Ein Profil wählen</translation></message>
<message><source>no profile recognises it{0}</source>
<translation>kein Profil erkennt ihn{0}</translation></message>
<message><source>Describe it with New game, or choose the folder of one of: {0}</source>
<translation>Beschreibe es mit Neues Spiel, oder wähle den Ordner von einem von: {0}</translation></message>
<message><source>mods that go {0} need {1}</source>
<translation>Mods, die {0} gehen, brauchen {1}</translation></message>
<message><source>mods.order: {0} is a file of the game's own, which is never written</source>
<translation>mods.order: {0} ist eine eigene Datei des Spiels, die nie geschrieben wird</translation></message>
<message><source>it does not recognise {0}</source>
<translation>es erkennt {0} nicht</translation></message>
<message><source>Correct its [recognise] files, or describe the game with New game</source>
<translation>Berichtige seine Dateien unter [recognise], oder beschreibe das Spiel mit „Neues Spiel“</translation></message>
<message><source>a repeat within a repeat can take for ever: write it with one</source>
<translation>eine Wiederholung in einer Wiederholung kann ewig dauern: Schreib es mit einer</translation></message>
<message><source>it has no group in parentheses around the version</source>
<translation>es hat keine Gruppe in Klammern um die Version</translation></message>
<message><source>it is not a regular expression: {0}</source>
<translation>es ist kein regulärer Ausdruck: {0}</translation></message>
<message><source>it names no cell</source>
<translation>es nennt keine Zelle</translation></message>
<message><source>{0} profiles recognise it: {1}</source>
<translation>{0} Profile erkennen es: {1}</translation></message>
<message><source>Say which it is: `furnel describe GAME --is ID`</source>
<translation>Sag, welches es ist: `furnel describe GAME --is ID`</translation></message>
<message><source>Reading a list of names</source>
<translation>Eine Namensliste lesen</translation></message>
<message><source>Put it beside the profile</source>
<translation>Leg sie neben das Profil</translation></message>
<message><source>command of a profile</source>
<translation>Befehl eines Profils</translation></message>
<message><source>be started</source>
<translation>gestartet werden</translation></message>
<message><source>draw a still</source>
<translation>ein Standbild zeichnen</translation></message>
<message><source>Drawing a still</source>
<translation>Ein Standbild zeichnen</translation></message>
<message><source>give a report</source>
<translation>einen Bericht geben</translation></message>
<message><source>Asking the game</source>
<translation>Das Spiel fragen</translation></message>
<message><source>it wrote no picture</source>
<translation>es hat kein Bild geschrieben</translation></message>
<message><source>Running the game</source>
<translation>Das Spiel laufen lassen</translation></message>
<message><source>Check the game, or the commands in its profile</source>
<translation>Prüfe das Spiel, oder die Befehle in seinem Profil</translation></message>
<message><source>cd {0};</source>
<translation>cd {0};</translation></message>
<message><source>Waiting whether the game goes on</source>
<translation>Es wird gewartet, ob das Spiel weiterläuft</translation></message>
<message><source>its report makes no sense ({0})</source>
<translation>sein Bericht ergibt keinen Sinn ({0})</translation></message>
<message><source>its profile does not say how it can {0}</source>
<translation>sein Profil sagt nicht, wie es das kann: {0}</translation></message>
<message><source>its profile wants to run: {0}</source>
<translation>sein Profil will ausführen: {0}</translation></message>
<message><source>The profile did not come with Furnel: allow its commands on Try when you know what they do</source>
<translation>Das Profil kam nicht mit Furnel: erlaube seine Befehle unter Testen, wenn du weißt, was sie tun</translation></message>
<message><source>it did not answer within {0} s</source>
<translation>es hat in {0} s nicht geantwortet</translation></message>
<message><source>Picture files</source>
<translation>Bilddateien</translation></message>
<message><source>Reading a picture</source>
<translation>Ein Bild lesen</translation></message>
<message><source>Writing a picture</source>
<translation>Ein Bild schreiben</translation></message>
<message><source>bottom first</source>
<translation>unten zuerst</translation></message>
<message><source>there is no type {0=}</source>
<translation>eine Art {0} gibt es nicht</translation></message>
<message><source>it is no {0} file</source>
<translation>es ist keine {0}-Datei</translation></message>
<message><source>Save it as PNG in your paint program</source>
<translation>Speichere es in deinem Malprogramm als PNG</translation></message>
<message><source>{0} is not written</source>
<translation>{0} wird nicht geschrieben</translation></message>
<message><source>Use one of {0}</source>
<translation>Nimm eins von {0}</translation></message>
<message><source>{0} × {1} pixels are too many to be seen here</source>
<translation>{0} × {1} Pixel sind zu viele, um sie hier zu sehen</translation></message>
<message><source>Give it smaller levels, or less pixels</source>
<translation>Gib ihm kleinere Stufen oder weniger Pixel</translation></message>
<message><source>what its encoding says of {0} cannot be done: {1}</source>
<translation>was seine Kodierung über {0} sagt, geht nicht: {1}</translation></message>
<message><source>Match the original's encoding again</source>
<translation>Gleiche die Kodierung wieder dem Original an</translation></message>
<message><source>{0} of {1} bits</source>
<translation>{0} mit {1} Bit</translation></message>
<message><source>pixels of {0} bits</source>
<translation>Pixel mit {0} Bit</translation></message>
<message><source>the picture has {0} colours, and the palette holds {1}</source>
<translation>das Bild hat {0} Farben, und die Palette fasst {1}</translation></message>
<message><source>Add the step Few colours</source>
<translation>Füge den Schritt Wenige Farben hinzu</translation></message>
<message><source>the original is an animation of {0} pictures, and this would be one</source>
<translation>das Original ist eine Animation aus {0} Bildern, und dies wäre eines</translation></message>
<message><source>Make the animation in your paint program, and take it as it is</source>
<translation>Mach die Animation in deinem Malprogramm und nimm sie, wie sie ist</translation></message>
<message><source>it cannot be written as {0}: {1}</source>
<translation>es kann nicht als {0} geschrieben werden: {1}</translation></message>
<message><source>Write it as PNG</source>
<translation>Schreib es als PNG</translation></message>
<message><source>it ends at byte {0}, inside its header</source>
<translation>es endet bei Byte {0}, mitten in seinem Kopf</translation></message>
<message><source>{0} should end at byte {1} and the file ends at {2}</source>
<translation>{0} müsste bei Byte {1} enden, und die Datei endet bei {2}</translation></message>
<message><source>Reading a DDS texture</source>
<translation>Eine DDS-Textur lesen</translation></message>
<message><source>Alpha is</source>
<translation>Alpha ist</translation></message>
<message><source>Writing a DDS texture</source>
<translation>Eine DDS-Textur schreiben</translation></message>
<message><source>row alignment</source>
<translation>Ausrichtung der Zeilen</translation></message>
<message><source>it does not begin like one</source>
<translation>es beginnt nicht wie eine</translation></message>
<message><source>Is it another kind of file?</source>
<translation>Ist es eine andere Art Datei?</translation></message>
<message><source>it says {0} levels, more than {1} × {2} pixels have</source>
<translation>es nennt {0} Stufen, mehr als {1} × {2} Pixel haben</translation></message>
<message><source>it says {0} layers</source>
<translation>es nennt {0} Lagen</translation></message>
<message><source>The file is damaged</source>
<translation>Die Datei ist beschädigt</translation></message>
<message><source>its format code {0} is not read</source>
<translation>ihr Formatcode {0} wird nicht gelesen</translation></message>
<message><source>Save it as one of BC1 to BC7</source>
<translation>Speichere sie als eins von BC1 bis BC7</translation></message>
<message><source>{0}-bit pixels with the masks {1=} are not read</source>
<translation>Pixel mit {0} Bit und den Masken {1} werden nicht gelesen</translation></message>
<message><source>Save it as 32-bit RGBA</source>
<translation>Speichere sie als 32-Bit-RGBA</translation></message>
<message><source>{0} has no DX10 code</source>
<translation>{0} hat keinen DX10-Code</translation></message>
<message><source>Use the legacy header</source>
<translation>Nimm den alten Kopf</translation></message>
<message><source>DXGI format {0} is not read</source>
<translation>das DXGI-Format {0} wird nicht gelesen</translation></message>
<message><source>Header</source>
<translation>Kopf</translation></message>
<message><source>Some games know only one of the two DDS headers</source>
<translation>Manche Spiele kennen nur einen der beiden DDS-Köpfe</translation></message>
<message><source>Row padding</source>
<translation>Auffüllung der Zeilen</translation></message>
<message><source>Rows of another length shift the picture line by line</source>
<translation>Zeilen anderer Länge verschieben das Bild Zeile um Zeile</translation></message>
<message><source>it is a cube with faces left out, which no game of today reads</source>
<translation>es ist ein Würfel, dem Seiten fehlen; das liest heute kein Spiel</translation></message>
<message><source>Writing an animation</source>
<translation>Eine Animation schreiben</translation></message>
<message><source>it has no frames</source>
<translation>sie hat keine Bilder</translation></message>
<message><source>Choose cells that are drawn in</source>
<translation>Wähle Zellen, in denen etwas gezeichnet ist</translation></message>
<message><source>it has {0} frames of {1} × {2}, which is too much</source>
<translation>sie hat {0} Bilder von {1} × {2}; das ist zu viel</translation></message>
<message><source>Use at most {0} frames, or smaller ones</source>
<translation>Nimm höchstens {0} Bilder, oder kleinere</translation></message>
<message><source>Reading a KTX2 texture</source>
<translation>Eine KTX2-Textur lesen</translation></message>
<message><source>it is packed in a way (number {0}) that is not read</source>
<translation>sie ist auf eine Weise gepackt (Nummer {0}), die nicht gelesen wird</translation></message>
<message><source>Save it plain or with Zstandard</source>
<translation>Speichere sie ungepackt oder mit Zstandard</translation></message>
<message><source>Vulkan format {0} is not read</source>
<translation>das Vulkan-Format {0} wird nicht gelesen</translation></message>
<message><source>{0} layers with {1} faces are not read</source>
<translation>{0} Lagen mit {1} Seiten werden nicht gelesen</translation></message>
<message><source>a level unpacks to too little</source>
<translation>eine Stufe entpackt sich zu zu wenig</translation></message>
<message><source>level {0} has {1} bytes where {2} are needed</source>
<translation>Stufe {0} hat {1} Bytes, wo {2} nötig sind</translation></message>
<message><source>The file is damaged: take a fresh copy of it</source>
<translation>Die Datei ist beschädigt: hol eine frische Kopie</translation></message>
<message><source>a level cannot be unpacked ({0})</source>
<translation>eine Stufe lässt sich nicht entpacken ({0})</translation></message>
<message><source>A game that does not unpack it reads garbage</source>
<translation>Ein Spiel, das sie nicht entpackt, liest Unsinn</translation></message>
<message><source>Colour space</source>
<translation>Farbraum</translation></message>
<message><source>Reading an OpenRaster file</source>
<translation>Eine OpenRaster-Datei lesen</translation></message>
<message><source>Laying layers</source>
<translation>Ebenen legen</translation></message>
<message><source>its stack.xml declares things of its own</source>
<translation>ihre stack.xml erklärt eigene Dinge</translation></message>
<message><source>stack.xml has no stack</source>
<translation>stack.xml hat keinen Stapel</translation></message>
<message><source>it is damaged ({0})</source>
<translation>sie ist beschädigt ({0})</translation></message>
<message><source>Open it in the program that made it and save it again</source>
<translation>Öffne sie in dem Programm, das sie gemacht hat, und speichere sie neu</translation></message>
<message><source>there is none of these</source>
<translation>davon gibt es keine</translation></message>
<message><source>Name layers that the file has</source>
<translation>Nenne Ebenen, die die Datei hat</translation></message>
<message><source>stack.xml: {0}</source>
<translation>stack.xml: {0}</translation></message>
<message><source>{0=} claims to be far too large</source>
<translation>{0} behauptet, viel zu groß zu sein</translation></message>
<message><source>it has far too many layers</source>
<translation>sie hat viel zu viele Ebenen</translation></message>
<message><source>Join some of them</source>
<translation>Vereine einige davon</translation></message>
<message><source>its few bytes claim far too many pixels</source>
<translation>seine wenigen Bytes behaupten viel zu viele Pixel</translation></message>
<message><source>Use a smaller canvas, or flatten it</source>
<translation>Nimm eine kleinere Leinwand, oder füge die Ebenen zusammen</translation></message>
<message><source>its groups are nested more than {0} deep</source>
<translation>seine Gruppen sind mehr als {0} tief geschachtelt</translation></message>
<message><source>Colour type</source>
<translation>Farbtyp</translation></message>
<message><source>Some games read one colour type alone, or draw others otherwise</source>
<translation>Manche Spiele lesen nur einen Farbtyp oder zeichnen andere anders</translation></message>
<message><source>Depth</source>
<translation>Tiefe</translation></message>
<message><source>Some games read one depth alone</source>
<translation>Manche Spiele lesen nur eine Tiefe</translation></message>
<message><source>Order of the palette</source>
<translation>Reihenfolge der Palette</translation></message>
<message><source>a colour profile</source>
<translation>ein Farbprofil</translation></message>
<message><source>Clear colour</source>
<translation>Klare Farbe</translation></message>
<message><source>Interlaced</source>
<translation>Verschachtelt</translation></message>
<message><source>Offsets</source>
<translation>Versätze</translation></message>
<message><source>Quality</source>
<translation>Güte</translation></message>
<message><source>Subsampling</source>
<translation>Farbunterabtastung</translation></message>
<message><source>Progressive</source>
<translation>Stufenweise</translation></message>
<message><source>Some games read plain ones alone</source>
<translation>Manche Spiele lesen nur einfache</translation></message>
<message><source>Density</source>
<translation>Dichte</translation></message>
<message><source>Lossless</source>
<translation>Verlustfrei</translation></message>
<message><source>Some games read plain rows alone</source>
<translation>Manche Spiele lesen nur einfache Zeilen</translation></message>
<message><source>Rows</source>
<translation>Zeilen</translation></message>
<message><source>Masks</source>
<translation>Masken</translation></message>
<message><source>Reading a TGA picture</source>
<translation>Ein TGA-Bild lesen</translation></message>
<message><source>top first</source>
<translation>oben zuerst</translation></message>
<message><source>Read in the other order the picture hangs upside down</source>
<translation>In der anderen Reihenfolge gelesen hängt das Bild kopfüber</translation></message>
<message><source>its palette</source>
<translation>seine Palette</translation></message>
<message><source>its last row</source>
<translation>seine letzte Zeile</translation></message>
<message><source>Writing a TGA picture</source>
<translation>Ein TGA-Bild schreiben</translation></message>
<message><source>alpha bit</source>
<translation>Alpha-Bit</translation></message>
<message><source>Writing a TGA picture with a palette</source>
<translation>Ein TGA-Bild mit Palette schreiben</translation></message>
<message><source>type {0} with {1} bits is none that the format knows</source>
<translation>die Art {0} mit {1} Bit kennt das Format nicht</translation></message>
<message><source>Save it as 24- or 32-bit true colour</source>
<translation>Speichere es in 24 oder 32 Bit Echtfarben</translation></message>
<message><source>{0} bits</source>
<translation>{0} Bit</translation></message>
<message><source>it stores {0}, not {1}</source>
<translation>es speichert {0}, nicht {1}</translation></message>
<message><source>Choose one of those formats</source>
<translation>Wähle eins dieser Formate</translation></message>
<message><source>the picture has {0} colours, and a palette holds 256</source>
<translation>das Bild hat {0} Farben, und eine Palette fasst 256</translation></message>
<message><source>its runs are too few for its size</source>
<translation>seine Läufe sind zu wenige für seine Größe</translation></message>
<message><source>The file is cut short</source>
<translation>Die Datei ist abgeschnitten</translation></message>
<message><source>its runs end too soon</source>
<translation>seine Läufe enden zu früh</translation></message>
<message><source>A game that does not expect it reads garbage</source>
<translation>Ein Spiel, das es nicht erwartet, liest Unsinn</translation></message>
<message><source>Palette</source>
<translation>Palette</translation></message>
<message><source>Alpha bit</source>
<translation>Alpha-Bit</translation></message>
<message><source>Footer</source>
<translation>Fuß</translation></message>
<message><source>Cropping</source>
<translation>Zuschneiden</translation></message>
<message><source>Placing on the original</source>
<translation>Auf das Original setzen</translation></message>
<message><source>the area at {0}, {1} lies outside the picture of {2} × {3}</source>
<translation>die Fläche bei {0}, {1} liegt außerhalb des Bilds von {2} × {3}</translation></message>
<message><source>Move the area into the picture</source>
<translation>Schieb die Fläche ins Bild</translation></message>
<message><source>the area at {0}, {1} lies outside the original of {2} × {3}</source>
<translation>die Fläche bei {0}, {1} liegt außerhalb des Originals von {2} × {3}</translation></message>
<message><source>A picture</source>
<translation>Ein Bild</translation></message>
<message><source>its header says {0} × {1} pixels</source>
<translation>sein Kopf nennt {0} × {1} Pixel</translation></message>
<message><source>The file is damaged or not of this kind</source>
<translation>Die Datei ist beschädigt oder nicht von dieser Art</translation></message>
<message><source>pixels are {0} {1}, not (height, width, 4) uint8</source>
<translation>die Pixel sind {0} {1}, nicht (Höhe, Breite, 4) uint8</translation></message>
<message><source>Resizing a picture</source>
<translation>Die Größe eines Bilds ändern</translation></message>
<message><source>there is no filter {0}</source>
<translation>einen Filter {0} gibt es nicht</translation></message>
<message><source>Use {0}</source>
<translation>Nimm {0}</translation></message>
<message><source>Taking a strip from a picture</source>
<translation>Eine Farbreihe aus einem Bild nehmen</translation></message>
<message><source>Give a picture with one field for each colour, side by side</source>
<translation>Gib ein Bild mit einem Feld je Farbe, nebeneinander</translation></message>
<message><source>its middle row shows {0}</source>
<translation>seine mittlere Zeile zeigt {0}</translation></message>
<message><source>, not {0}</source>
<translation>, nicht {0}</translation></message>
<message><source>mean and spread</source>
<translation>Mittel und Streuung</translation></message>
<message><source>whole distribution</source>
<translation>ganze Verteilung</translation></message>
<message><source>even parts</source>
<translation>gleiche Teile</translation></message>
<message><source>{0} turned over</source>
<translation>{0} umgedreht</translation></message>
<message><source> turned over</source>
<translation> umgedreht</translation></message>
<message><source>Mixing channels</source>
<translation>Kanäle mischen</translation></message>
<message><source>the other picture is missing, or has another size</source>
<translation>das andere Bild fehlt oder ist anders groß</translation></message>
<message><source>Choose a file of the same size, or put this step after Bring to size</source>
<translation>Wähle eine gleich große Datei, oder setz diesen Schritt hinter „Auf Größe bringen“</translation></message>
<message><source>Letting go</source>
<translation>Loslassen</translation></message>
<message><source>Furnel makes itself ready for this machine, once: about a minute</source>
<translation>Furnel richtet sich auf diesem Rechner ein, einmal: etwa eine Minute</translation></message>
<message><source>it is no file, but something that programs talk through</source>
<translation>es ist keine Datei, sondern etwas, worüber Programme miteinander reden</translation></message>
<message><source>a link to {0}, which is outside</source>
<translation>ein Verweis auf {0}, das außerhalb liegt</translation></message>
<message><source>a link that cannot be followed: {0}</source>
<translation>ein Verweis, dem nicht zu folgen ist: {0}</translation></message>
<message><source>a link to {0}, which is listed there</source>
<translation>ein Verweis auf {0}, das dort aufgeführt ist</translation></message>
<message><source>its name is not UTF-8: rename it to read it</source>
<translation>sein Name ist kein UTF-8: benenne es um, um es zu lesen</translation></message>
<message><source>a link to {0}, which is not there</source>
<translation>ein Verweis auf {0}, das nicht da ist</translation></message>
<message><source>a link to {0}, which this folder lies in</source>
<translation>ein Verweis auf {0}, worin dieser Ordner liegt</translation></message>
<message><source>a link to {0}, which is no file</source>
<translation>ein Verweis auf {0}, das keine Datei ist</translation></message>
<message><source>the folder itself</source>
<translation>den Ordner selbst</translation></message>
<message><source>another Furnel is working on it and does not come to an end</source>
<translation>ein anderes Furnel arbeitet daran und kommt zu keinem Ende</translation></message>
<message><source>Close it, then try again</source>
<translation>Schließ es und versuch es noch einmal</translation></message>
<message><source>{0} is written with {1}, not {2}</source>
<translation>{0} wird mit {1} geschrieben, nicht {2}</translation></message>
<message><source>{0} is not written: use one of {1}</source>
<translation>{0} wird nicht geschrieben: nimm eins von {1}</translation></message>
<message><source>there is no format {0}: use one of {1}</source>
<translation>ein Format {0} gibt es nicht: nimm eins von {1}</translation></message>
<message><source>Looking for what is alike</source>
<translation>Nach Ähnlichem suchen</translation></message>
<message><source>no preview for this kind</source>
<translation>keine Vorschau für diese Art</translation></message>
<message><source>it is neither a picture nor a sound</source>
<translation>es ist weder ein Bild noch ein Geräusch</translation></message>
<message><source>Choose a picture or a sound</source>
<translation>Wähle ein Bild oder ein Geräusch</translation></message>
<message><source>file of another kind</source>
<translation>Datei anderer Art</translation></message>
<message><source>Other</source>
<translation>Anderes</translation></message>
<message><source>a font</source>
<translation>eine Schrift</translation></message>
<message><source>What it is</source>
<translation>Was es ist</translation></message>
<message><source>Textures</source>
<translation>Texturen</translation></message>
<message><source>Sheets</source>
<translation>Bögen</translation></message>
<message><source>{0}, full chain</source>
<translation>{0}, volle Kette</translation></message>
<message><source>Encoding</source>
<translation>Kodierung</translation></message>
<message><source>Size</source>
<translation>Größe</translation></message>
<message><source>none used</source>
<translation>ungenutzt</translation></message>
<message><source>{0} rows are not {1} pictures one below the other</source>
<translation>{0} Zeilen sind nicht {1} Bilder untereinander</translation></message>
<message><source>Bring it to the original's size</source>
<translation>Bring es auf die Größe des Originals</translation></message>
<message><source>Alpha</source>
<translation>Alpha</translation></message>
<message><source>Brightness</source>
<translation>Helligkeit</translation></message>
<message><source>{0} of {1} × {2}</source>
<translation>{0} von {1} × {2}</translation></message>
<message><source>tag {0=}</source>
<translation>Kennung {0}</translation></message>
<message><source>cue {0}</source>
<translation>Marke {0}</translation></message>
<message><source>Rate</source>
<translation>Rate</translation></message>
<message><source>{0} Hz</source>
<translation>{0} Hz</translation></message>
<message><source>Channels</source>
<translation>Kanäle</translation></message>
<message><source>Vorbis</source>
<translation>Vorbis</translation></message>
<message><source>Loudness</source>
<translation>Lautheit</translation></message>
<message><source>Loop</source>
<translation>Schleife</translation></message>
<message><source>{0} frames, exactly</source>
<translation>{0} Frames, genau</translation></message>
<message><source>line {0}: {1}</source>
<translation>Zeile {0}: {1}</translation></message>
<message><source>Lines</source>
<translation>Zeilen</translation></message>
<message><source>Adding something new</source>
<translation>Etwas Neues hinzufügen</translation></message>
<message><source>{n} new thing</source>
<translation>{n} neues Ding</translation></message>
<message><source>{n} new things</source>
<translation>{n} neue Dinge</translation></message>
<message><source>an id has letters, digits and _</source>
<translation>eine Kennung hat Buchstaben, Ziffern und _</translation></message>
<message><source>Try {0}</source>
<translation>Versuch {0}</translation></message>
<message><source>Removing an addition</source>
<translation>Eine Ergänzung entfernen</translation></message>
<message><source>new thing</source>
<translation>neues Ding</translation></message>
<message><source>{0}; {1} left out that another is the same as</source>
<translation>{0}; {1} weggelassen, weil ein anderes gleich ist</translation></message>
<message><source>Adding {0}</source>
<translation>{0} wird hinzugefügt</translation></message>
<message><source>{0=} takes no such thing, as far as its profile says</source>
<translation>{0} nimmt so etwas nicht, soweit sein Profil sagt</translation></message>
<message><source>there is a {0} already</source>
<translation>ein {0} gibt es schon</translation></message>
<message><source>Give it another id</source>
<translation>Gib ihm eine andere Kennung</translation></message>
<message><source>it has no table of records</source>
<translation>es hat keine Tabelle von Datensätzen</translation></message>
<message><source>Correct the game's profile</source>
<translation>Berichtige das Profil des Spiels</translation></message>
<message><source>{0} has no such asset that the {1=} could be like</source>
<translation>{0} hat kein solches Asset, dem {1} gleichen könnte</translation></message>
<message><source>Choose another</source>
<translation>Wähle ein anderes</translation></message>
<message><source>the mod has none</source>
<translation>die Mod hat keine</translation></message>
<message><source>there is no file in it that is new</source>
<translation>darin ist keine neue Datei</translation></message>
<message><source>Choose another folder</source>
<translation>Wähle einen anderen Ordner</translation></message>
<message><source>There are: {0}</source>
<translation>Es gibt: {0}</translation></message>
<message><source>Say in its profile what it takes, with [[additions]]</source>
<translation>Sag in seinem Profil mit [[additions]], was es nimmt</translation></message>
<message><source>what it is like has no such value</source>
<translation>was es gleicht, hat keinen solchen Wert</translation></message>
<message><source>There are {0}</source>
<translation>Es gibt {0}</translation></message>
<message><source>there is no {0} that it could be like</source>
<translation>es gibt kein {0}, dem es gleichen könnte</translation></message>
<message><source>there is such an asset already</source>
<translation>ein solches Asset gibt es schon</translation></message>
<message><source>It has {0}</source>
<translation>Es hat {0}</translation></message>
<message><source>there is no place left for it</source>
<translation>dafür ist kein Platz mehr</translation></message>
<message><source>It has {0} places</source>
<translation>Es hat {0} Plätze</translation></message>
<message><source>it has no place called {0}</source>
<translation>einen Platz namens {0} hat es nicht</translation></message>
<message><source>Its places: {0}</source>
<translation>Seine Plätze: {0}</translation></message>
<message><source>it has nothing of its own</source>
<translation>es hat nichts Eigenes</translation></message>
<message><source>Give a file for {0}</source>
<translation>Gib eine Datei für {0}</translation></message>
<message><source>its {0} is missing</source>
<translation>es fehlt: {0}</translation></message>
<message><source>there is no {0=} that could be left out</source>
<translation>es gibt kein {0}, das wegbleiben könnte</translation></message>
<message><source>its {0=} takes one file</source>
<translation>{0} nimmt eine Datei</translation></message>
<message><source>Give one</source>
<translation>Gib eine</translation></message>
<message><source>Fitting a folder</source>
<translation>Einen Ordner anpassen</translation></message>
<message><source>Fitted</source>
<translation>Angepasst</translation></message>
<message><source>it is the source itself</source>
<translation>es ist die Quelle selbst</translation></message>
<message><source>Choose another folder to write to</source>
<translation>Wähle einen anderen Ordner zum Schreiben</translation></message>
<message><source>both {0} and {1} are for it</source>
<translation>{0} und {1} sind beide dafür</translation></message>
<message><source>Keep one of the two, or match by path</source>
<translation>Behalte eins von beiden, oder ordne nach Pfad zu</translation></message>
<message><source>Making a bridge</source>
<translation>Eine Brücke machen</translation></message>
<message><source>the mods or their order are others now</source>
<translation>die Mods oder ihre Reihenfolge sind jetzt andere</translation></message>
<message><source>Bridge</source>
<translation>Brücke</translation></message>
<message><source>Lets {0} live together: {1} that several of them change</source>
<translation>Lässt {0} zusammen leben: {1}, was mehrere von ihnen ändern</translation></message>
<message><source>it is switched off</source>
<translation>sie ist ausgeschaltet</translation></message>
<message><source>it is not last in the load order</source>
<translation>sie ist nicht die letzte in der Ladereihenfolge</translation></message>
<message><source>{0} is another now</source>
<translation>{0} ist jetzt anders</translation></message>
<message><source>its mods stand in the place of the game's own files, one for each of them</source>
<translation>seine Mods stehen an der Stelle der Dateien des Spiels, eine für jede davon</translation></message>
<message><source>Open one of the mods and add the other one's files to it</source>
<translation>Öffne eine der Mods und nimm die Dateien der anderen dazu</translation></message>
<message><source>no such mod is switched on</source>
<translation>eine solche Mod ist nicht eingeschaltet</translation></message>
<message><source>Those that are: {0}</source>
<translation>Eingeschaltet sind: {0}</translation></message>
<message><source>what was read back is not what was written</source>
<translation>was zurückgelesen wurde, ist nicht, was geschrieben wurde</translation></message>
<message><source>Check the disk</source>
<translation>Prüfe die Platte</translation></message>
<message><source>Building the mod</source>
<translation>Die Mod bauen</translation></message>
<message><source>Built {0}</source>
<translation>{0} gebaut</translation></message>
<message><source>Packaging the mod</source>
<translation>Das Paket der Mod packen</translation></message>
<message><source>Writing {0}</source>
<translation>{0} wird geschrieben</translation></message>
<message><source>Reading back {0}</source>
<translation>{0} wird zurückgelesen</translation></message>
<message><source>Check the disk, then build again</source>
<translation>Prüfe die Platte, dann baue noch einmal</translation></message>
<message><source>{0} of {1} {2}: {3}</source>
<translation>{0} von {1} {2}: {3}</translation></message>
<message><source>Fit them first, or build anyway to see what the game says</source>
<translation>Pass sie zuerst an, oder baue trotzdem, um zu sehen, was das Spiel sagt</translation></message>
<message><source>it would lie inside the build itself</source>
<translation>es läge im Build selbst</translation></message>
<message><source>Choose another place for the ZIP</source>
<translation>Wähle einen anderen Ort für das ZIP</translation></message>
<message><source>The last build is unchanged</source>
<translation>Der letzte Build ist unverändert</translation></message>
<message><source>The game lays a mod's records over its own: what is taken out stays</source>
<translation>Das Spiel legt die Datensätze einer Mod über seine eigenen: was herausgenommen ist, bleibt</translation></message>
<message><source>Match it keeps yours; or take the game's value</source>
<translation>Angleichen behält deins; oder nimm den Wert des Spiels</translation></message>
<message><source>Editing a text</source>
<translation>Einen Text bearbeiten</translation></message>
<message><source>only comments, spacing or spelling are other than before, and these stay the game's</source>
<translation>nur Kommentare, Abstände oder Schreibweisen sind anders als vorher, und die bleiben die des Spiels</translation></message>
<message><source>Change values; or make a file of it, and use that whole as the source of a swap</source>
<translation>Ändere Werte; oder mach eine Datei daraus und nimm sie ganz als Quelle eines Tauschs</translation></message>
<message><source>changed by an update</source>
<translation>durch eine Aktualisierung geändert</translation></message>
<message><source>{0=} stays in the game</source>
<translation>{0} bleibt im Spiel</translation></message>
<message><source>Take it back, or change it</source>
<translation>Nimm es zurück, oder ändere es</translation></message>
<message><source>Installing the mod</source>
<translation>Die Mod installieren</translation></message>
<message><source>Installed in the place of {0} of {1=}; the game's own are kept, and come back with Remove</source>
<translation>Installiert an der Stelle von {0} von {1}; das Eigene des Spiels ist aufgehoben und kommt mit Entfernen zurück</translation></message>
<message><source>The mod is off; the load order was changed by others meanwhile and keeps their changes</source>
<translation>Die Mod ist heraus; die Ladereihenfolge wurde inzwischen von anderen geändert und behält deren Änderungen</translation></message>
<message><source>Installed as {0}/{1} in {2=}</source>
<translation>Installiert als {0}/{1} in {2}</translation></message>
<message><source>Installed: {0} in {1} of {2=}</source>
<translation>Installiert: {0} in {1} von {2}</translation></message>
<message><source>The mods folder is as it was before</source>
<translation>Der Mod-Ordner ist, wie er vorher war</translation></message>
<message><source>The mod is off; the others stay in their order</source>
<translation>Die Mod ist aus; die anderen bleiben in ihrer Reihenfolge</translation></message>
<message><source>Installed</source>
<translation>Installiert</translation></message>
<message><source>something lies there that is no folder</source>
<translation>dort liegt etwas, das kein Ordner ist</translation></message>
<message><source>a folder of that name is there, and Furnel did not put it there</source>
<translation>ein Ordner dieses Namens ist da, und Furnel hat ihn nicht dorthin gelegt</translation></message>
<message><source>what Furnel put there was changed since by somebody else</source>
<translation>was Furnel dorthin gelegt hat, wurde seither von jemand anderem geändert</translation></message>
<message><source>Removing the mod</source>
<translation>Die Mod entfernen</translation></message>
<message><source>Looking after interrupted installs</source>
<translation>Nach unterbrochenen Installationen sehen</translation></message>
<message><source>it is not built yet</source>
<translation>sie ist noch nicht gebaut</translation></message>
<message><source>Build it first</source>
<translation>Baue sie zuerst</translation></message>
<message><source>it is a link to {0}, which Furnel leaves as it is</source>
<translation>es ist eine Verknüpfung nach {0}, die Furnel lässt, wie sie ist</translation></message>
<message><source>Take the link out of the mods folder, then install the mod</source>
<translation>Nimm die Verknüpfung aus dem Mods-Ordner und installiere dann die Mod</translation></message>
<message><source>Look at it, then install over it if you want to: Remove brings back what was there before Furnel</source>
<translation>Sieh es an, dann installiere darüber, wenn du willst: Entfernen bringt zurück, was vor Furnel da war</translation></message>
<message><source>Take out what you want to keep, then remove it all the same</source>
<translation>Nimm heraus, was du behalten willst, dann entferne sie trotzdem</translation></message>
<message><source>Furnel has not installed it here</source>
<translation>Furnel hat sie hier nicht installiert</translation></message>
<message><source>Delete its folder by hand if you put it there</source>
<translation>Lösche ihren Ordner von Hand, wenn du ihn dorthin gelegt hast</translation></message>
<message><source>Installing {0=}</source>
<translation>{0} wird installiert</translation></message>
<message><source>The game is as it was before</source>
<translation>Das Spiel ist, wie es vorher war</translation></message>
<message><source>Try again: it goes on where it stopped</source>
<translation>Versuch es noch einmal: es geht weiter, wo es aufgehört hat</translation></message>
<message><source>what was read back is not what was built</source>
<translation>was zurückgelesen wurde, ist nicht, was gebaut wurde</translation></message>
<message><source>it is not UTF-8 text</source>
<translation>es ist kein UTF-8-Text</translation></message>
<message><source>Save it as UTF-8, or delete it</source>
<translation>Speichere sie als UTF-8, oder lösche sie</translation></message>
<message><source>Filling an event</source>
<translation>Ein Ereignis füllen</translation></message>
<message><source>{0} to {1}</source>
<translation>{0} bis {1}</translation></message>
<message><source>at least {0}</source>
<translation>mindestens {0}</translation></message>
<message><source>Matching {0=}</source>
<translation>{0} wird angeglichen</translation></message>
<message><source>it plays {0}, and neither the game nor the mod has that</source>
<translation>es spielt {0}, und das hat weder das Spiel noch die Mod</translation></message>
<message><source>Take it out of the event, or swap it in</source>
<translation>Nimm es aus dem Ereignis, oder tausch es ein</translation></message>
<message><source>the game has no such event</source>
<translation>das Spiel hat kein solches Ereignis</translation></message>
<message><source>{0} files for {1} sounds</source>
<translation>{0} Dateien für {1} Geräusche</translation></message>
<message><source>Drop another number of files</source>
<translation>Zieh eine andere Zahl von Dateien hierher</translation></message>
<message><source>Drop a file of the same kind ({0}): it is taken as it is</source>
<translation>Zieh eine Datei derselben Art ({0}) darauf: sie wird genommen, wie sie ist</translation></message>
<message><source>Drop another source</source>
<translation>Zieh eine andere Quelle hierher</translation></message>
<message><source>Drop another source on the swap</source>
<translation>Zieh eine andere Quelle auf den Tausch</translation></message>
<message><source>the original is {0} and the source a {1}</source>
<translation>das Original ist {0} und die Quelle {1}</translation></message>
<message><source>nothing to change</source>
<translation>nichts zu ändern</translation></message>
<message><source>written like the original</source>
<translation>geschrieben wie das Original</translation></message>
<message><source>The game expects another kind of file here</source>
<translation>Das Spiel erwartet hier eine andere Art Datei</translation></message>
<message><source>Left out</source>
<translation>Weggelassen</translation></message>
<message><source>What is cut off is not heard: a word, an echo, an end</source>
<translation>Was abgeschnitten ist, hört man nicht: ein Wort, ein Echo, ein Ende</translation></message>
<message><source>Order</source>
<translation>Reihenfolge</translation></message>
<message><source>The sheet was turned or mirrored as a whole: its last frame comes first, and the animation plays backwards</source>
<translation>Der Bogen wurde als Ganzes gedreht oder gespiegelt: sein letztes Bild kommt zuerst, und die Bewegung läuft rückwärts</translation></message>
<message><source>Left-over colours</source>
<translation>Übrige Farben</translation></message>
<message><source>Pixels of a colour that was taken away or changed are still there: nobody can unsee them</source>
<translation>Pixel einer Farbe, die weggenommen oder geändert wurde, sind noch da: wer sie einmal sieht, sieht sie immer</translation></message>
<message><source>Strip</source>
<translation>Farbreihe</translation></message>
<message><source>The game paints the figure with the strip's colours: what the two do not share is not painted as it was meant</source>
<translation>Das Spiel malt die Figur mit den Farben der Reihe: was die beiden nicht gemeinsam haben, wird nicht gemalt, wie es gemeint war</translation></message>
<message><source>Drift</source>
<translation>Drift</translation></message>
<message><source>The game was updated and this original is no longer the one you matched</source>
<translation>Das Spiel wurde aktualisiert, und dieses Original ist nicht mehr das, an das du angepasst hast</translation></message>
<message><source>The game has no asset of this name</source>
<translation>Das Spiel hat kein Asset dieses Namens</translation></message>
<message><source>Without its source a swap has no result</source>
<translation>Ohne seine Quelle hat ein Tausch kein Ergebnis</translation></message>
<message><source>left to right</source>
<translation>links nach rechts</translation></message>
<message><source>top to bottom</source>
<translation>oben nach unten</translation></message>
<message><source>both ways</source>
<translation>beide Richtungen</translation></message>
<message><source>repeats left to right</source>
<translation>wiederholt sich links nach rechts</translation></message>
<message><source>repeats top to bottom</source>
<translation>wiederholt sich oben nach unten</translation></message>
<message><source>repeats both ways</source>
<translation>wiederholt sich in beide Richtungen</translation></message>
<message><source>grey, to be tinted</source>
<translation>grau, zum Tönen</translation></message>
<message><source>a normal map</source>
<translation>eine Normalenkarte</translation></message>
<message><source>a mask a channel</source>
<translation>eine Maske je Kanal</translation></message>
<message><source>The game multiplies it with a colour; a coloured picture comes out in the wrong one</source>
<translation>Das Spiel nimmt es mit einer Farbe mal; ein farbiges Bild bekommt die falsche</translation></message>
<message><source>The game reads directions from it; any other picture gives random light</source>
<translation>Das Spiel liest Richtungen daraus; jedes andere Bild gibt zufälliges Licht</translation></message>
<message><source>Each channel switches something of its own</source>
<translation>Jeder Kanal schaltet etwas Eigenes</translation></message>
<message><source>The game shows these channels as colours</source>
<translation>Das Spiel zeigt diese Kanäle als Farben</translation></message>
<message><source>{0} × too {1}</source>
<translation>{0} × zu {1}</translation></message>
<message><source>Write it as {0}</source>
<translation>Schreib es als {0}</translation></message>
<message><source>Bring it to {0}</source>
<translation>Bring es auf {0}</translation></message>
<message><source>one picture</source>
<translation>ein Bild</translation></message>
<message><source>Write {0}, one below the other in the source</source>
<translation>Schreib {0}, in der Quelle untereinander</translation></message>
<message><source>Encode as {0}</source>
<translation>Als {0} kodieren</translation></message>
<message><source>Mark it as {0}</source>
<translation>Kennzeichne es als {0}</translation></message>
<message><source>Make {0} levels in linear light</source>
<translation>Mach {0} Stufen in linearem Licht</translation></message>
<message><source>Clear the background colour</source>
<translation>Klär die Hintergrundfarbe</translation></message>
<message><source>Take the original's alpha</source>
<translation>Nimm das Alpha des Originals</translation></message>
<message><source>Without clear pixels the figure stands in a box</source>
<translation>Ohne klare Pixel steht die Figur in einem Kasten</translation></message>
<message><source>Write it {0}</source>
<translation>Schreib es {0}</translation></message>
<message><source>the nearest colour</source>
<translation>die nächste Farbe</translation></message>
<message><source>of all sorts</source>
<translation>aller Art</translation></message>
<message><source>Make it grey</source>
<translation>Mach es grau</translation></message>
<message><source>Use a normal map: it tells which way each spot faces</source>
<translation>Nimm eine Normalenkarte: sie sagt, wohin jede Stelle zeigt</translation></message>
<message><source>Pack one mask into each channel with Mix and pack channels</source>
<translation>Pack mit „Kanäle mischen und packen“ eine Maske in jeden Kanal</translation></message>
<message><source>Use a picture in colour</source>
<translation>Nimm ein farbiges Bild</translation></message>
<message><source>{0} colours</source>
<translation>{0} Farben</translation></message>
<message><source>Reduce it to the original's colours</source>
<translation>Verringere es auf die Farben des Originals</translation></message>
<message><source>{0} by {1} stops, if it should sit in like the original</source>
<translation>{0} um {1} Blenden, wenn es sich einfügen soll wie das Original</translation></message>
<message><source>{0} × white</source>
<translation>{0} × Weiß</translation></message>
<message><source>Let white become {0}</source>
<translation>Lass Weiß {0} werden</translation></message>
<message><source>left alone</source>
<translation>in Ruhe gelassen</translation></message>
<message><source>{0} painted over</source>
<translation>{0} übermalt</translation></message>
<message><source>Keep what matters out of them</source>
<translation>Halt Wichtiges daraus heraus</translation></message>
<message><source>Drop the alpha</source>
<translation>Lass das Alpha fallen</translation></message>
<message><source>Spread the nearest colour under them</source>
<translation>Breite die nächste Farbe darunter aus</translation></message>
<message><source>a seam shows {0}</source>
<translation>eine Naht ist zu sehen, {0}</translation></message>
<message><source>Blend the seams</source>
<translation>Überblende die Nähte</translation></message>
<message><source>true colour</source>
<translation>Echtfarben</translation></message>
<message><source>Darken</source>
<translation>Dunkle es ab</translation></message>
<message><source>Brighten</source>
<translation>Helle es auf</translation></message>
<message><source>Match the original's tones, if it should sit in like the original</source>
<translation>Gleich die Töne an das Original an, wenn es sich einfügen soll wie dieses</translation></message>
<message><source>The game reads this kind of file only</source>
<translation>Das Spiel liest nur diese Art Datei</translation></message>
<message><source>Another size is read as garbage, or refused</source>
<translation>Eine andere Größe wird als Unsinn gelesen oder abgelehnt</translation></message>
<message><source>Power of two</source>
<translation>Zweierpotenz</translation></message>
<message><source>Many games refuse other sides, or cannot make levels of them</source>
<translation>Viele Spiele lehnen andere Seiten ab, oder können keine Stufen daraus machen</translation></message>
<message><source>Multiple of four</source>
<translation>Vielfaches von vier</translation></message>
<message><source>Blocks are four pixels square: other sides crash some games</source>
<translation>Blöcke sind vier mal vier Pixel: andere Seiten bringen manche Spiele zum Absturz</translation></message>
<message><source>The game looks for all of them in one file</source>
<translation>Das Spiel sucht alle davon in einer Datei</translation></message>
<message><source>The game takes the bytes for the original's format</source>
<translation>Das Spiel nimmt die Bytes für das Format des Originals</translation></message>
<message><source>Read as the other the picture comes out far too dark or too pale</source>
<translation>Als der andere gelesen wird das Bild viel zu dunkel oder zu blass</translation></message>
<message><source>From afar the game shows a smaller level; without it, nothing</source>
<translation>Von fern zeigt das Spiel eine kleinere Stufe; ohne sie nichts</translation></message>
<message><source>Clear and half-clear pixels mean something to the game</source>
<translation>Klare und halb klare Pixel bedeuten dem Spiel etwas</translation></message>
<message><source>Read as the other, soft edges get dark or bright rims</source>
<translation>Als das andere gelesen bekommen weiche Kanten dunkle oder helle Säume</translation></message>
<message><source>Under clear pixels</source>
<translation>Unter klaren Pixeln</translation></message>
<message><source>What lies under clear pixels bleeds into the edges when the game makes the picture smaller</source>
<translation>Was unter klaren Pixeln liegt, blutet in die Kanten, wenn das Spiel das Bild verkleinert</translation></message>
<message><source>The game reads something of its own from each channel</source>
<translation>Das Spiel liest aus jedem Kanal etwas Eigenes</translation></message>
<message><source>Edges</source>
<translation>Ränder</translation></message>
<message><source>The game lays it side by side with itself: edges that do not meet show as lines</source>
<translation>Das Spiel legt es neben sich selbst: Ränder, die nicht zueinander passen, sind als Linien zu sehen</translation></message>
<message><source>The game looks colours up in a table of this size</source>
<translation>Das Spiel schlägt Farben in einer Tabelle dieser Größe nach</translation></message>
<message><source>A picture much brighter or darker than its neighbours sticks out in the game</source>
<translation>Ein Bild, das viel heller oder dunkler als seine Nachbarn ist, sticht im Spiel heraus</translation></message>
<message><source>Contrast</source>
<translation>Kontrast</translation></message>
<message><source>Flat among hard pictures, or hard among flat ones, it sticks out</source>
<translation>Flach unter harten Bildern oder hart unter flachen sticht es heraus</translation></message>
<message><source>Brightest</source>
<translation>Hellstes</translation></message>
<message><source>The game's glare and exposure follow what is brighter than white</source>
<translation>Blendung und Belichtung des Spiels folgen dem, was heller als Weiß ist</translation></message>
<message><source>Keep-out areas</source>
<translation>Sperrflächen</translation></message>
<message><source>The game covers or never shows these areas of the picture</source>
<translation>Das Spiel verdeckt diese Flächen des Bilds oder zeigt sie nie</translation></message>
<message><source>Choose fill or inside in Bring to size</source>
<translation>Wähle „füllen“ oder „hineinpassen“ in „Auf Größe bringen“</translation></message>
<message><source>Write {0} {1}</source>
<translation>Schreib {0} {1}</translation></message>
<message><source>Proportions</source>
<translation>Seitenverhältnis</translation></message>
<message><source>A stretched picture looks squashed in the game, unless the game stretches it back</source>
<translation>Ein gestrecktes Bild sieht im Spiel gequetscht aus, es sei denn, das Spiel streckt es zurück</translation></message>
<message><source>{0} at {1}{2}</source>
<translation>{0} bei {1}{2}</translation></message>
<message><source>{0} × {1} each</source>
<translation>je {0} × {1}</translation></message>
<message><source>{0} of several colours at {1}</source>
<translation>{0} aus mehreren Farben bei {1}</translation></message>
<message><source>Draw it at its own size, and enlarge it by whole numbers: Larger pixels, or Lay figures out</source>
<translation>Zeichne es in seiner eigenen Größe und vergrößere es um ganze Zahlen: „Größere Pixel“ oder „Figuren auslegen“</translation></message>
<message><source>Bring it to {0} colours or fewer</source>
<translation>Bring es auf {0} Farben oder weniger</translation></message>
<message><source>Make each clear or not</source>
<translation>Mach jedes klar oder nicht</translation></message>
<message><source>{n} pair</source>
<translation>{n} Paar</translation></message>
<message><source>{n} pairs</source>
<translation>{n} Paare</translation></message>
<message><source>Make each pair one colour</source>
<translation>Mach aus jedem Paar eine Farbe</translation></message>
<message><source>{0} others: {1}</source>
<translation>{0} andere: {1}</translation></message>
<message><source>more than a palette has</source>
<translation>mehr, als eine Palette hat</translation></message>
<message><source>Bring each back to the nearest of the original's</source>
<translation>Bring jede auf die nächste des Originals zurück</translation></message>
<message><source>more than 256</source>
<translation>mehr als 256</translation></message>
<message><source>{0} beside {1} at {2}, {3}</source>
<translation>{0} neben {1} bei {2}, {3}</translation></message>
<message><source>Colours used</source>
<translation>Benutzte Farben</translation></message>
<message><source>A sheet of few colours is changed by colour; hundreds that differ little cannot be</source>
<translation>Ein Bogen mit wenigen Farben wird nach Farbe geändert; bei Hunderten, die sich wenig unterscheiden, geht das nicht</translation></message>
<message><source>Half-clear pixels</source>
<translation>Halb klare Pixel</translation></message>
<message><source>The original's edges are hard: a pixel that is half clear is seen as a smear</source>
<translation>Die Kanten des Originals sind hart: ein halb klares Pixel sieht verschmiert aus</translation></message>
<message><source>Pixels' size</source>
<translation>Größe der Pixel</translation></message>
<message><source>The game's sheet is drawn with larger pixels; finer ones beside them look like another game</source>
<translation>Der Bogen des Spiels ist mit größeren Pixeln gezeichnet; feinere daneben sehen nach einem anderen Spiel aus</translation></message>
<message><source>Near twins</source>
<translation>Beinahe-Zwillinge</translation></message>
<message><source>Two colours that nobody tells apart: when one is changed later, the other is forgotten</source>
<translation>Zwei Farben, die niemand unterscheidet: wird später eine geändert, vergisst man die andere</translation></message>
<message><source>Mask's colours</source>
<translation>Farben der Maske</translation></message>
<message><source>The game paints areas by their exact colour, and does not know any other</source>
<translation>Das Spiel malt Flächen nach ihrer genauen Farbe und kennt keine andere</translation></message>
<message><source>the picture's best</source>
<translation>die besten des Bilds</translation></message>
<message><source>Match it lays the figures out on {0} cells of {1}</source>
<translation>Angleichen legt die Figuren auf {0} Zellen von {1} aus</translation></message>
<message><source>Draw it, or hold the frame before it: Lay figures out does</source>
<translation>Zeichne es, oder halt das Bild davor: „Figuren auslegen“ tut es</translation></message>
<message><source>row {0}</source>
<translation>Zeile {0}</translation></message>
<message><source>{0} off it, by up to {1} {2}</source>
<translation>{0} davon weg, um bis zu {1} {2}</translation></message>
<message><source>Move them: Lay figures out puts them on the original's floor</source>
<translation>Beweg sie: „Figuren auslegen“ stellt sie auf den Boden des Originals</translation></message>
<message><source>column {0}</source>
<translation>Spalte {0}</translation></message>
<message><source>{0} to the {1}</source>
<translation>{0} nach {1}</translation></message>
<message><source>Paint them over, or join them; Match it clears them</source>
<translation>Übermal sie, oder verbinde sie; Angleichen klärt sie</translation></message>
<message><source>Move or shrink the figures inside their cells</source>
<translation>Beweg oder verkleinere die Figuren in ihren Zellen</translation></message>
<message><source>drawn in {0} {1}{2}</source>
<translation>gezeichnet in {0} {1}{2}</translation></message>
<message><source>as it looks</source>
<translation>wie es aussieht</translation></message>
<message><source>{0}{1} are</source>
<translation>{0}{1} sind</translation></message>
<message><source>Clear the cells after the first {0}: the game never shows them</source>
<translation>Klär die Zellen nach den ersten {0}: das Spiel zeigt sie nie</translation></message>
<message><source>{0} borders crossed</source>
<translation>{0} Grenzen überschritten</translation></message>
<message><source>Move or shrink the figures that touch their cell's border, or take what is between the cells from the original</source>
<translation>Beweg oder verkleinere die Figuren, die die Grenze ihrer Zelle berühren, oder nimm, was zwischen den Zellen ist, vom Original</translation></message>
<message><source>a tile a cell</source>
<translation>eine Kachel je Zelle</translation></message>
<message><source>no frame</source>
<translation>kein Bild</translation></message>
<message><source>as drawn</source>
<translation>wie gezeichnet</translation></message>
<message><source>{0} empty</source>
<translation>{0} leer</translation></message>
<message><source>Move them: Lay figures out puts their feet where the original's are</source>
<translation>Beweg sie: „Figuren auslegen“ stellt ihre Füße dahin, wo die des Originals sind</translation></message>
<message><source>{0} pixels</source>
<translation>{0} Pixel</translation></message>
<message><source>Bring them to a whole number of times their size, near {0}</source>
<translation>Bring sie auf ein ganzes Vielfaches ihrer Größe, nahe {0}</translation></message>
<message><source> and {0} more</source>
<translation> und {0} weitere</translation></message>
<message><source>up to {0} at an edge</source>
<translation>bis zu {0} an einem Rand</translation></message>
<message><source>inside their cells</source>
<translation>in ihren Zellen</translation></message>
<message><source>{0} cut off at an edge</source>
<translation>{0} an einem Rand abgeschnitten</translation></message>
<message><source>filled with {0}</source>
<translation>mit {0} gefüllt</translation></message>
<message><source>Take these cells from the original</source>
<translation>Nimm diese Zellen vom Original</translation></message>
<message><source>{0} times the usual step</source>
<translation>{0}-mal der übliche Schritt</translation></message>
<message><source>not seen</source>
<translation>nicht zu sehen</translation></message>
<message><source>{0} times the usual step: {1}</source>
<translation>{0}-mal der übliche Schritt: {1}</translation></message>
<message><source>Make tiles takes all edges from one block of 3 × 3</source>
<translation>„Kacheln machen“ nimmt alle Ränder aus einem Block von 3 × 3</translation></message>
<message><source>{0} is</source>
<translation>{0} ist</translation></message>
<message><source>frames {0}{1} are</source>
<translation>Bilder {0}{1} sind</translation></message>
<message><source>no whole cells</source>
<translation>keine ganzen Zellen</translation></message>
<message><source>{0} between the cells</source>
<translation>{0} zwischen den Zellen</translation></message>
<message><source>{0} at {1}, {2}</source>
<translation>{0} bei {1}, {2}</translation></message>
<message><source>the other way</source>
<translation>andersherum</translation></message>
<message><source>Mirror each frame</source>
<translation>Spiegle jedes Bild</translation></message>
<message><source>gaps at {0}{1}</source>
<translation>Lücken bei {0}{1}</translation></message>
<message><source>Draw up to that side</source>
<translation>Zeichne bis an diese Seite</translation></message>
<message><source>The game plays the cells one after the other</source>
<translation>Das Spiel spielt die Zellen eine nach der anderen</translation></message>
<message><source>Cells</source>
<translation>Zellen</translation></message>
<message><source>A figure that reaches over its cell is cut off, and a piece of it shows in the next frame</source>
<translation>Eine Figur, die über ihre Zelle reicht, wird abgeschnitten, und ein Stück davon ist im nächsten Bild zu sehen</translation></message>
<message><source>Empty frames</source>
<translation>Leere Bilder</translation></message>
<message><source>A frame with nothing in it makes the figure blink</source>
<translation>Ein Bild ohne Inhalt lässt die Figur blinken</translation></message>
<message><source>A figure that leaves its floor for a frame hops, or sinks into the ground</source>
<translation>Eine Figur, die für ein Bild ihren Boden verlässt, hüpft oder sinkt ein</translation></message>
<message><source>Middle</source>
<translation>Mitte</translation></message>
<message><source>A figure that stands beside its place jumps when the game turns it round, and is hit where it is not seen</source>
<translation>Eine Figur, die neben ihrem Platz steht, springt, wenn das Spiel sie umdreht, und wird getroffen, wo man sie nicht sieht</translation></message>
<message><source>Height</source>
<translation>Höhe</translation></message>
<message><source>Much higher or lower than the original it does not go with what the game shows around it</source>
<translation>Viel höher oder niedriger als das Original passt sie nicht zu dem, was das Spiel um sie herum zeigt</translation></message>
<message><source>Cut off</source>
<translation>Abgeschnitten</translation></message>
<message><source>What a cell cuts off is not seen: the figure has a flat side</source>
<translation>Was eine Zelle abschneidet, sieht man nicht: die Figur hat eine flache Seite</translation></message>
<message><source>Odd pixels</source>
<translation>Verirrte Pixel</translation></message>
<message><source>A single forgotten pixel is seen as soon as the figure moves</source>
<translation>Ein einziges vergessenes Pixel sieht man, sobald die Figur sich bewegt</translation></message>
<message><source>Unused cells</source>
<translation>Ungenutzte Zellen</translation></message>
<message><source>The game never shows these cells; what is drawn there was meant for another one</source>
<translation>Das Spiel zeigt diese Zellen nie; was dort gezeichnet ist, war für eine andere gedacht</translation></message>
<message><source>Facing</source>
<translation>Blickrichtung</translation></message>
<message><source>The game mirrors figures by itself when they turn: one that faces the other way walks backwards</source>
<translation>Das Spiel spiegelt Figuren selbst, wenn sie sich drehen: eine, die andersherum blickt, läuft rückwärts</translation></message>
<message><source>Tiles' seams</source>
<translation>Nähte der Kacheln</translation></message>
<message><source>The game puts every tile beside every other one that goes on at that side</source>
<translation>Das Spiel setzt jede Kachel neben jede andere, die an dieser Seite weitergeht</translation></message>
<message><source>{n} border</source>
<translation>{n} Grenze</translation></message>
<message><source>{n} borders</source>
<translation>{n} Grenzen</translation></message>
<message><source>Fit all cuts whole bars where they come near; or give the song its tempo</source>
<translation>„Alles anpassen“ schneidet ganze Takte, wo sie nahe kommen; oder gib dem Lied sein Tempo</translation></message>
<message><source>its beats come {0} ms {1}</source>
<translation>seine Schläge kommen {0} ms {1}</translation></message>
<message><source>Play it in the song's key, or give the song this one</source>
<translation>Spiel es in der Tonart des Lieds, oder gib dem Lied diese</translation></message>
<message><source>no steady beat is heard</source>
<translation>kein steter Schlag ist zu hören</translation></message>
<message><source>Fit all begins it with a bar</source>
<translation>„Alles anpassen“ lässt es mit einem Takt beginnen</translation></message>
<message><source>In step</source>
<translation>Im Gleichschritt</translation></message>
<message><source>The parts of a song play together: one that goes at another pace, or comes late, is heard at once</source>
<translation>Die Stimmen eines Lieds spielen zusammen: eine, die anders läuft oder zu spät kommt, hört man sofort</translation></message>
<message><source>Key</source>
<translation>Tonart</translation></message>
<message><source>A part in another key sounds wrong beside the others; a hint, for keys are easily mixed up</source>
<translation>Eine Stimme in anderer Tonart klingt neben den übrigen falsch; nur ein Hinweis, denn Tonarten sind leicht zu verwechseln</translation></message>
<message><source>Resample to {0}</source>
<translation>Rechne um auf {0}</translation></message>
<message><source>Mix to {0}</source>
<translation>Misch auf {0}</translation></message>
<message><source>Make a loop at the original's place</source>
<translation>Mach eine Schleife an der Stelle des Originals</translation></message>
<message><source>{0} by {1} LU</source>
<translation>{0} um {1} LU</translation></message>
<message><source>{0} to {1} LUFS</source>
<translation>{0} bis {1} LUFS</translation></message>
<message><source>Bring it to {0} LUFS</source>
<translation>Bring es auf {0} LUFS</translation></message>
<message><source>Hold it below {0} dBTP</source>
<translation>Halt es unter {0} dBTP</translation></message>
<message><source>Cut it off</source>
<translation>Schneid sie ab</translation></message>
<message><source>{0} frames</source>
<translation>{0} Bilder</translation></message>
<message><source>Record it again, quieter</source>
<translation>Nimm es noch einmal auf, leiser</translation></message>
<message><source>Centre it on zero</source>
<translation>Zentriere es um null</translation></message>
<message><source>Use one of its channels for both</source>
<translation>Nimm einen seiner Kanäle für beide</translation></message>
<message><source>Take over the original's</source>
<translation>Übernimm die des Originals</translation></message>
<message><source>up to {0} bytes</source>
<translation>bis zu {0} Bytes</translation></message>
<message><source>{0} bytes</source>
<translation>{0} Bytes</translation></message>
<message><source>Shorten it or encode it smaller</source>
<translation>Kürze es, oder kodiere es kleiner</translation></message>
<message><source>Use a sound that has a length</source>
<translation>Nimm ein Geräusch, das eine Länge hat</translation></message>
<message><source>There is no sound in it</source>
<translation>Darin ist kein Ton</translation></message>
<message><source>The loop jumps back at the original's last frame</source>
<translation>Die Schleife springt beim letzten Frame des Originals zurück</translation></message>
<message><source>The game counts its frames</source>
<translation>Das Spiel zählt seine Frames</translation></message>
<message><source>Its own loop record goes into the mod with it</source>
<translation>Sein eigener Schleifen-Datensatz kommt mit ihm in die Mod</translation></message>
<message><source>Cut or repeat to {0} frames</source>
<translation>Schneide oder wiederhole auf {0} Frames</translation></message>
<message><source>Nothing says that the game counts it: it is played as long as it is</source>
<translation>Nichts sagt, dass das Spiel sie zählt: Es wird gespielt, so lang es ist</translation></message>
<message><source>Make a loop that ends where the original's does</source>
<translation>Mach eine Schleife, die endet, wo die des Originals endet</translation></message>
<message><source>It is silent: use another source, or another channel of it</source>
<translation>Es ist still: nimm eine andere Quelle, oder einen anderen Kanal davon</translation></message>
<message><source>The original is silent: what is heard now was not meant to be, or is new</source>
<translation>Das Original ist still: was jetzt zu hören ist, war nicht gedacht oder ist neu</translation></message>
<message><source>{0} kbit/s nominal</source>
<translation>{0} kbit/s nominell</translation></message>
<message><source>Encode it better</source>
<translation>Kodiere es besser</translation></message>
<message><source>Another codec stays silent</source>
<translation>Ein anderer Codec bleibt stumm</translation></message>
<message><source>Played at the original's rate, its pitch changes</source>
<translation>Mit der Rate des Originals gespielt ändert sich seine Tonhöhe</translation></message>
<message><source>The game expects this many channels</source>
<translation>Das Spiel erwartet so viele Kanäle</translation></message>
<message><source>A sound that the game counts and that is of another length is cut, or followed by silence</source>
<translation>Ein Klang, den das Spiel zählt und der anders lang ist, wird abgeschnitten, oder Stille folgt</translation></message>
<message><source>The game jumps back from its end to its start</source>
<translation>Das Spiel springt von seinem Ende zu seinem Anfang</translation></message>
<message><source>Only a hint: what the game times by beats has to keep its tempo</source>
<translation>Nur ein Hinweis: was das Spiel nach Schlägen misst, muss sein Tempo behalten</translation></message>
<message><source>It should sit beside the game's other sounds</source>
<translation>Es soll neben die anderen Geräusche des Spiels passen</translation></message>
<message><source>Family</source>
<translation>Familie</translation></message>
<message><source>The event plays its sounds in turn: one that stands out is heard at once</source>
<translation>Das Ereignis spielt seine Geräusche der Reihe nach: eins, das herausfällt, hört man sofort</translation></message>
<message><source>Above full scale it crackles when it is played</source>
<translation>Über Vollausschlag knistert es beim Abspielen</translation></message>
<message><source>Silence before a sound makes it come late</source>
<translation>Stille vor einem Geräusch lässt es zu spät kommen</translation></message>
<message><source>Clipping</source>
<translation>Übersteuerung</translation></message>
<message><source>Flat tops were recorded too loud: they crackle at any loudness</source>
<translation>Flache Gipfel wurden zu laut aufgenommen: sie knistern bei jeder Lautheit</translation></message>
<message><source>A wave beside zero clicks when it begins and ends</source>
<translation>Eine Welle neben null klickt am Anfang und am Ende</translation></message>
<message><source>Left and right</source>
<translation>Links und rechts</translation></message>
<message><source>Opposite channels cancel each other on one loudspeaker</source>
<translation>Gegenläufige Kanäle löschen sich auf einem Lautsprecher aus</translation></message>
<message><source>Bit rate</source>
<translation>Bitrate</translation></message>
<message><source>Too few bits are heard as a gurgle</source>
<translation>Zu wenige Bits hört man als Gurgeln</translation></message>
<message><source>Some games read them</source>
<translation>Manche Spiele lesen sie</translation></message>
<message><source>Marked places</source>
<translation>Markierte Stellen</translation></message>
<message><source>The game may act when the sound comes to them</source>
<translation>Das Spiel kann handeln, wenn der Ton sie erreicht</translation></message>
<message><source>The game has no room for more</source>
<translation>Das Spiel hat für mehr keinen Platz</translation></message>
<message><source>Fit all gives it the original's length</source>
<translation>„Alles anpassen“ gibt ihm die Länge des Originals</translation></message>
<message><source>The parts of a song need not be equally loud</source>
<translation>Die Stimmen eines Lieds müssen nicht gleich laut sein</translation></message>
<message><source>Turn down</source>
<translation>Dreh es leiser</translation></message>
<message><source>Turn up</source>
<translation>Dreh es lauter</translation></message>
<message><source>it parses</source>
<translation>er lässt sich lesen</translation></message>
<message><source>any text</source>
<translation>beliebiger Text</translation></message>
<message><source>Key names</source>
<translation>Schlüssel</translation></message>
<message><source>The game may not know this key: it is ignored, or misspelt</source>
<translation>Das Spiel kennt diesen Schlüssel vielleicht nicht: er wird übergangen oder ist verschrieben</translation></message>
<message><source>Values</source>
<translation>Werte</translation></message>
<message><source>The game reads something else here, and stops or guesses</source>
<translation>Das Spiel liest hier etwas anderes und hält an oder rät</translation></message>
<message><source>Usual range</source>
<translation>Üblicher Bereich</translation></message>
<message><source>No other of the game's own goes so far: it may be meant, or a slip</source>
<translation>Nichts im Spiel geht so weit: gewollt, oder ein Versehen</translation></message>
<message><source>Names</source>
<translation>Namen</translation></message>
<message><source>It names something that neither the game nor the mod has</source>
<translation>Es nennt etwas, das weder das Spiel noch die Mod hat</translation></message>
<message><source>Allowed</source>
<translation>Erlaubt</translation></message>
<message><source>The game does not take this value</source>
<translation>Das Spiel nimmt diesen Wert nicht</translation></message>
<message><source>Ids</source>
<translation>Kennungen</translation></message>
<message><source>Two records of one id: the game takes one of them, or stops</source>
<translation>Zwei Datensätze mit einer Kennung: das Spiel nimmt einen davon oder hält an</translation></message>
<message><source>Changes</source>
<translation>Änderungen</translation></message>
<message><source>The place of a change is gone: the game was updated, or an earlier change took it away</source>
<translation>Die Stelle einer Änderung ist fort: das Spiel wurde aktualisiert, oder eine frühere Änderung hat sie weggenommen</translation></message>
<message><source>those that it has</source>
<translation>die, die es hat</translation></message>
<message><source>of the same types</source>
<translation>von denselben Arten</translation></message>
<message><source>among its own</source>
<translation>unter seinesgleichen</translation></message>
<message><source>all there</source>
<translation>alle da</translation></message>
<message><source>what it takes</source>
<translation>was es nimmt</translation></message>
<message><source>one of each</source>
<translation>je einer</translation></message>
<message><source>as their figures</source>
<translation>wie ihre Figuren</translation></message>
<message><source>Correct it in your text editor</source>
<translation>Berichtige ihn in deinem Texteditor</translation></message>
<message><source>The game reads this kind of text only</source>
<translation>Das Spiel liest nur diese Art von Text</translation></message>
<message><source>Form</source>
<translation>Form</translation></message>
<message><source>A text that cannot be read is ignored, or stops the game; what its values mean is compared below, as far as the game's own file shows it</source>
<translation>Ein Text, der sich nicht lesen lässt, wird übergangen oder hält das Spiel an; was seine Werte bedeuten, wird unten verglichen, so weit die Datei des Spiels es zeigt</translation></message>
<message><source>their places</source>
<translation>ihre Stellen</translation></message>
<message><source>Check it against the game's own records</source>
<translation>Vergleich es mit den Datensätzen des Spiels</translation></message>
<message><source>Save it so</source>
<translation>Speichere ihn so</translation></message>
<message><source>sources/from the game</source>
<translation>sources/from the game</translation></message>
<message><source>{0=}, the game's own</source>
<translation>{0}, das des Spiels</translation></message>
<message><source>there are too many files of that name</source>
<translation>es gibt zu viele Dateien dieses Namens</translation></message>
<message><source>it is swapped already</source>
<translation>es ist schon getauscht</translation></message>
<message><source>Add steps to that swap</source>
<translation>Füge diesem Tausch Schritte hinzu</translation></message>
<message><source>Change its values, or swap it with a file</source>
<translation>Ändere seine Werte, oder tausch es gegen eine Datei</translation></message>
<message><source>Use a shorter source, choose the part yourself, or keep your length against the original's</source>
<translation>Nimm eine kürzere Quelle, wähle den Teil selbst, oder behalte deine Länge gegen die des Originals</translation></message>
<message><source>Change these colours too, take the ground away with more spread, or touch them up</source>
<translation>Ändere auch diese Farben, nimm den Grund mit mehr Spielraum weg, oder bessere sie aus</translation></message>
<message><source>Take that step out, and use Mirror each frame</source>
<translation>Nimm diesen Schritt heraus, und nimm „Jedes Bild spiegeln“</translation></message>
<message><source>A tune that repeats has to end where the game jumps back</source>
<translation>Ein Stück, das sich wiederholt, muss enden, wo das Spiel zurückspringt</translation></message>
<message><source>Looking for moved content</source>
<translation>Nach verschobenem Inhalt suchen</translation></message>
<message><source>Looking for what was {0}</source>
<translation>Suchen, was {0} war</translation></message>
<message><source>Getting a mod</source>
<translation>Eine Mod holen</translation></message>
<message><source> by {0=}</source>
<translation> von {0}</translation></message>
<message><source>it calls itself {0}, which is no name for a folder</source>
<translation>sie nennt sich {0}, und so kann kein Ordner heißen</translation></message>
<message><source>Ids are small letters, digits, - and _: ask whoever made it for another package</source>
<translation>Kennungen sind Kleinbuchstaben, Ziffern, - und _: bitte den, der sie gemacht hat, um ein anderes Paket</translation></message>
<message><source>it is a bridge, which is made for one game's own mods</source>
<translation>sie ist eine Brücke; die wird für die Mods eines einzelnen Spiels gemacht</translation></message>
<message><source>Make one here</source>
<translation>Mach hier eine</translation></message>
<message><source>nothing in it is called like anything of this game</source>
<translation>nichts darin heißt wie etwas in diesem Spiel</translation></message>
<message><source>Is it for another game?</source>
<translation>Ist sie für ein anderes Spiel?</translation></message>
<message><source>it has {0} mods in it: {1}</source>
<translation>es sind {0} Mods darin: {1}</translation></message>
<message><source>Say which one (--mod)</source>
<translation>Sag, welche (--mod)</translation></message>
<message><source>a date or time</source>
<translation>ein Datum oder eine Zeit</translation></message>
<message><source>The game's files are as they were before</source>
<translation>Die Dateien des Spiels sind, wie sie vorher waren</translation></message>
<message><source>The mod is off; {0} was changed by others and stays as it is</source>
<translation>Die Mod ist heraus; {0} wurde von anderen geändert und bleibt, wie es ist</translation></message>
<message><source>Keeping the game's own files</source>
<translation>Die eigenen Dateien des Spiels aufheben</translation></message>
<message><source>{0} is not what Furnel put there: the game was updated, or somebody changed it</source>
<translation>{0} ist nicht, was Furnel dorthin gelegt hat: das Spiel wurde aktualisiert, oder jemand hat es geändert</translation></message>
<message><source>it is not what Furnel put there: the game was updated, or somebody changed it</source>
<translation>es ist nicht, was Furnel dorthin gelegt hat: das Spiel wurde aktualisiert, oder jemand hat es geändert</translation></message>
<message><source>Look at it, then install over it if you want to: what is there now will be kept as the game's own</source>
<translation>Sieh es an, dann installiere darüber, wenn du willst: was jetzt da ist, wird als das Eigene des Spiels aufgehoben</translation></message>
<message><source>If its files are in the game, let the game repair itself</source>
<translation>Sind seine Dateien im Spiel, lass das Spiel sich selbst reparieren</translation></message>
<message><source>Remove it all the same to leave such files as they are and bring back the others</source>
<translation>Entferne sie trotzdem, um solche Dateien zu lassen, wie sie sind, und die anderen zurückzubringen</translation></message>
<message><source>Installing {0}</source>
<translation>{0} wird installiert</translation></message>
<message><source>the game's own file, which was kept there, is gone or was changed</source>
<translation>die eigene Datei des Spiels, die dort aufgehoben war, ist fort oder wurde geändert</translation></message>
<message><source>Let the game repair itself, then remove the mod</source>
<translation>Lass das Spiel sich selbst reparieren, dann entferne die Mod</translation></message>
<message><source>it cannot be told which of the game's files the build was made from</source>
<translation>es lässt sich nicht sagen, aus welchen Dateien des Spiels der Build gemacht ist</translation></message>
<message><source>Build the mod again</source>
<translation>Baue die Mod noch einmal</translation></message>
<message><source>it is not the file that the mod was built from: the game was updated since</source>
<translation>es ist nicht die Datei, aus der die Mod gebaut wurde: das Spiel wurde seither aktualisiert</translation></message>
<message><source>Build the mod again, on the game as it is now</source>
<translation>Baue die Mod noch einmal, mit dem Spiel, wie es jetzt ist</translation></message>
<message><source>it is a link, and what it leads to belongs to others</source>
<translation>es ist ein Verweis, und worauf er zeigt, gehört anderen</translation></message>
<message><source>Put a copy in the place of the link first, if the game may have one of its own</source>
<translation>Setz zuerst eine Kopie an die Stelle des Verweises, wenn das Spiel eine eigene haben darf</translation></message>
<message><source>Remove the mod all the same, let the game repair itself, then install it again</source>
<translation>Entferne die Mod trotzdem, lass das Spiel sich selbst reparieren, dann installiere sie noch einmal</translation></message>
<message><source>Levelling</source>
<translation>Angleichen der Lautheit</translation></message>
<message><source>Listening to</source>
<translation>Anhören</translation></message>
<message><source>there is no sound in it</source>
<translation>darin ist kein Ton</translation></message>
<message><source>the sources are there</source>
<translation>dort sind die Quellen</translation></message>
<message><source>{0} is not written, and {1=} is another of the sounds</source>
<translation>{0} wird nicht geschrieben, und {1} ist ein anderes der Geräusche</translation></message>
<message><source>Give one of the two another name</source>
<translation>Gib einem der beiden einen anderen Namen</translation></message>
<message><source>Reading a load-out</source>
<translation>Einen Mod-Satz lesen</translation></message>
<message><source>Dropping a load-out</source>
<translation>Einen Mod-Satz verwerfen</translation></message>
<message><source>{0} is {1}, not {2}</source>
<translation>{0} ist {1}, nicht {2}</translation></message>
<message><source>Keeping a load-out</source>
<translation>Einen Mod-Satz behalten</translation></message>
<message><source>there is none of that name</source>
<translation>so heißt keiner</translation></message>
<message><source>List them first</source>
<translation>Liste sie zuerst auf</translation></message>
<message><source>Using a load-out</source>
<translation>Einen Mod-Satz nehmen</translation></message>
<message><source> is not there</source>
<translation> ist nicht da</translation></message>
<message><source>it is no text</source>
<translation>es ist kein Text</translation></message>
<message><source>it is for {0}, and this is {1}</source>
<translation>er ist für {0}, und das hier ist {1}</translation></message>
<message><source>Open that game</source>
<translation>Öffne jenes Spiel</translation></message>
<message><source>it has no load order</source>
<translation>es hat keine Ladereihenfolge</translation></message>
<message><source>Install and remove mods one by one</source>
<translation>Installiere und entferne Mods einzeln</translation></message>
<message><source>Matching a folder</source>
<translation>Einen Ordner zuordnen</translation></message>
<message><source>without it</source>
<translation>ohne es</translation></message>
<message><source>Reading a mod</source>
<translation>Eine Mod lesen</translation></message>
<message><source>Install it again</source>
<translation>Installiere sie noch einmal</translation></message>
<message><source>Making a mod mine</source>
<translation>Eine Mod zu meiner machen</translation></message>
<message><source> by {0}</source>
<translation> von {0}</translation></message>
<message><source>{0=} again</source>
<translation>{0} wieder</translation></message>
<message><source>no such mod is in the game</source>
<translation>eine solche Mod ist nicht im Spiel</translation></message>
<message><source>Changing a character</source>
<translation>Eine ganze Figur ändern</translation></message>
<message><source>there is no picture among these files</source>
<translation>unter diesen Dateien ist kein Bild</translation></message>
<message><source>it is no sheet with cells</source>
<translation>es ist kein Bogen mit Zellen</translation></message>
<message><source>Drop pictures on a sheet</source>
<translation>Zieh Bilder auf einen Bogen</translation></message>
<message><source>none of its pictures has these colours</source>
<translation>keins ihrer Bilder hat diese Farben</translation></message>
<message><source>Choose a colour that is seen</source>
<translation>Wähle eine Farbe, die zu sehen ist</translation></message>
<message><source>file outside a project</source>
<translation>Datei außerhalb eines Projekts</translation></message>
<message><source>Reading a source</source>
<translation>Eine Quelle lesen</translation></message>
<message><source>it lies outside the mod's folder, and nobody chose it on this machine</source>
<translation>sie liegt außerhalb des Ordners der Mod, und niemand hat sie auf diesem Rechner gewählt</translation></message>
<message><source>Allow it when you know what it is (furnel mod allow), or choose the file yourself</source>
<translation>Erlaube es, wenn du weißt, was sie ist (furnel mod allow), oder wähle die Datei selbst</translation></message>
<message><source>there are too many files of its name</source>
<translation>es gibt zu viele Dateien ihres Namens</translation></message>
<message><source>Put the file back, or choose another one</source>
<translation>Leg die Datei zurück, oder wähle eine andere</translation></message>
<message><source>Reading a project</source>
<translation>Ein Projekt lesen</translation></message>
<message><source>it has neither a source nor changes</source>
<translation>er hat weder eine Quelle noch Änderungen</translation></message>
<message><source>changes are of the game's own definition: they go with no source, steps or encoding</source>
<translation>Änderungen sind solche der Definition des Spiels: zu ihnen gehören weder Quelle noch Schritte noch Kodierung</translation></message>
<message><source>there is no point {0}; there are {1}</source>
<translation>einen Punkt {0} gibt es nicht; es gibt {1}</translation></message>
<message><source>a path has no zero byte</source>
<translation>ein Pfad hat kein Nullbyte</translation></message>
<message><source>nothing changed yet</source>
<translation>noch nichts geändert</translation></message>
<message><source>it was saved by a newer Furnel (format {0}, this one knows {1})</source>
<translation>es wurde von einem neueren Furnel gespeichert (Format {0}, dieses kennt {1})</translation></message>
<message><source>Open it with that version; nothing was changed</source>
<translation>Öffne es mit jener Version; nichts wurde geändert</translation></message>
<message><source>Open the folder that has a furnel.toml</source>
<translation>Öffne den Ordner, der eine furnel.toml hat</translation></message>
<message><source>Correct the TOML in a text editor</source>
<translation>Berichtige das TOML in einem Texteditor</translation></message>
<message><source>{0} is swapped twice</source>
<translation>{0} ist zweimal getauscht</translation></message>
<message><source>Keep one of the two</source>
<translation>Behalte eins der beiden</translation></message>
<message><source>Changing colours</source>
<translation>Farben ändern</translation></message>
<message><source>Choose another folder for --out, or do them one after the other</source>
<translation>Wähle einen anderen Ordner für --out, oder mach sie nacheinander</translation></message>
<message><source>{0} is not written: save it as PNG, then change its colours</source>
<translation>{0} wird nicht geschrieben: Speichere es als PNG und ändere dann die Farben</translation></message>
<message><source>a source is there</source>
<translation>dort ist eine Quelle</translation></message>
<message><source>two results would be this file</source>
<translation>zwei Ergebnisse wären diese Datei</translation></message>
<message><source>the whole</source>
<translation>das Ganze</translation></message>
<message><source>A new record</source>
<translation>Ein neuer Datensatz</translation></message>
<message><source>after {0}</source>
<translation>hinter {0}</translation></message>
<message><source>there is a {0=} already</source>
<translation>ein {0} gibt es schon</translation></message>
<message><source>Give it another name</source>
<translation>Gib ihm einen anderen Namen</translation></message>
<message><source>Encoding {0=}</source>
<translation>{0} wird kodiert</translation></message>
<message><source>{0} GB are more than a source has</source>
<translation>{0} GB sind mehr, als eine Quelle hat</translation></message>
<message><source>Applying steps</source>
<translation>Schritte anwenden</translation></message>
<message><source>Remove its steps</source>
<translation>Entferne seine Schritte</translation></message>
<message><source>it has steps and no encoding</source>
<translation>er hat Schritte und keine Kodierung</translation></message>
<message><source>Use Fit all, which chooses one</source>
<translation>Nimm „Alles anpassen“, das eine wählt</translation></message>
<message><source>Drop another file on the swap</source>
<translation>Leg eine andere Datei auf den Tausch</translation></message>
<message><source>Put the file back, or drop another one on the swap</source>
<translation>Leg die Datei zurück, oder zieh eine andere auf den Tausch</translation></message>
<message><source>it is for a {0}, and this is a {1}</source>
<translation>er ist für ein {0}, und das hier ist ein {1}</translation></message>
<message><source>it is no file</source>
<translation>es ist keine Datei</translation></message>
<message><source>Open the mod again: it is made anew</source>
<translation>Öffne die Mod noch einmal: es wird neu gemacht</translation></message>
<message><source>Reading a result</source>
<translation>Ein Ergebnis lesen</translation></message>
<message><source>it was changed meanwhile</source>
<translation>es wurde inzwischen geändert</translation></message>
<message><source>Zlib</source>
<translation>Zlib</translation></message>
<message><source>Unlicense</source>
<translation>Unlicense</translation></message>
<message><source>  Delete the mod's files in {0}. The game's own files were never changed.</source>
<translation>  Lösche die Dateien der Mod in {0}. Die eigenen Dateien des Spiels wurden nie geändert.</translation></message>
<message><source>Say more of the mod</source>
<translation>Mehr von der Mod sagen</translation></message>
<message><source>Sharing the mod</source>
<translation>Die Mod teilen</translation></message>
<message><source>{0} without credit: {1}</source>
<translation>{0} ohne Nennung: {1}</translation></message>
<message><source>A mod for {0}.</source>
<translation>Eine Mod für {0}.</translation></message>
<message><source>  Delete {0}/{1} and its entry in {2}. The game's own files were never changed.</source>
<translation>  Lösche {0}/{1} und den Eintrag dafür in {2}. Die eigenen Dateien des Spiels wurden nie geändert.</translation></message>
<message><source>  Put your copies of the game's own files back.</source>
<translation>  Leg deine Kopien der eigenen Dateien des Spiels zurück.</translation></message>
<message><source>python3 merge.py {0}--back{1}  brings back what was there before</source>
<translation>python3 merge.py {0}--back{1}  bringt zurück, was vorher da war</translation></message>
<message><source>its folder</source>
<translation>ihr Ordner</translation></message>
<message><source>{0}/{1}, when it is in the game</source>
<translation>{0}/{1}, wenn sie im Spiel ist</translation></message>
<message><source>merge.py merges it with mods that change the same files. It needs Python 3.10 and is run in
{0}:

</source>
<translation>merge.py führt sie mit Mods zusammen, die dieselben Dateien ändern. Es braucht Python 3.10 und läuft in
{0}:

</translation></message>
<message><source>nobody is named as its author</source>
<translation>niemand ist als Urheber genannt</translation></message>
<message><source>no sentence says what it does</source>
<translation>kein Satz sagt, was sie tut</translation></message>
<message><source>nothing says what others may do with it</source>
<translation>nichts sagt, was andere damit tun dürfen</translation></message>
<message><source>it has no picture of itself</source>
<translation>sie hat kein Bild von sich</translation></message>
<message><source>How to install it</source>
<translation>Wie man sie installiert</translation></message>
<message><source>How to remove it</source>
<translation>Wie man sie entfernt</translation></message>
<message><source>What it touches</source>
<translation>Was sie berührt</translation></message>
<message><source>{0}, and nothing else:
{1}</source>
<translation>{0}, und sonst nichts:
{1}</translation></message>
<message><source>the game's folder</source>
<translation>der Ordner des Spiels</translation></message>
<message><source>{0} in the game's folder</source>
<translation>{0} im Ordner des Spiels</translation></message>
<message><source>Copy the files of the folder {0} into {1}.</source>
<translation>Kopiere die Dateien des Ordners {0} nach {1}.</translation></message>
<message><source>Unpack this ZIP into {0} in the game's folder, so that {1}/{2}/{3} is there.</source>
<translation>Entpack dieses ZIP nach {0} im Ordner des Spiels, so dass {1}/{2}/{3} da ist.</translation></message>
<message><source>Put it last in {0}:

{1}
</source>
<translation>Setz sie in {0} an die letzte Stelle:

{1}
</translation></message>
<message><source>python3 merge.py GAME        puts the mod into the game's files as they are now</source>
<translation>python3 merge.py SPIEL       legt die Mod in die Dateien des Spiels, wie sie jetzt sind</translation></message>
<message><source>python3 merge.py             says which files other mods change, too</source>
<translation>python3 merge.py             sagt, welche Dateien auch andere Mods ändern</translation></message>
<message><source>python3 merge.py --over MOD  puts what this mod changes into what MOD has of them</source>
<translation>python3 merge.py --over MOD  legt, was diese Mod ändert, in das, was MOD davon hat</translation></message>
<message><source>The first version.</source>
<translation>Die erste Version.</translation></message>
<message><source>taking its folder away leaves nothing</source>
<translation>nimmt man ihren Ordner weg, bleibt nichts</translation></message>
<message><source>files stay behind when its folder is taken away</source>
<translation>Dateien bleiben zurück, wenn man ihren Ordner wegnimmt</translation></message>
<message><source>the game accepts {0} of it</source>
<translation>das Spiel nimmt {0} davon an</translation></message>
<message><source>it is no picture</source>
<translation>es ist kein Bild</translation></message>
<message><source>Choose a PNG or a JPEG</source>
<translation>Wähle ein PNG oder JPEG</translation></message>
<message><source>With other mods</source>
<translation>Mit anderen Mods</translation></message>
<message><source>{0} (https://spdx.org/licenses/{1}.html)</source>
<translation>{0} (https://spdx.org/licenses/{1}.html)</translation></message>
<message><source>Keep copies of the game's own files of the same names: this mod stands in their place.</source>
<translation>Behalte Kopien der eigenen Dateien des Spiels mit denselben Namen: diese Mod steht an ihrer Stelle.</translation></message>
<message><source> and {0}</source>
<translation> und {0}</translation></message>
<message><source>{0}: no more {1}</source>
<translation>{0}: keine {1} mehr</translation></message>
<message><source>mods of this game lie in your own folder: try it on Try</source>
<translation>Mods dieses Spiels liegen in deinem eigenen Ordner: probier es bei „Probieren“</translation></message>
<message><source>mods of this game stand in the place of its files: try it on Try</source>
<translation>Mods dieses Spiels stehen an der Stelle seiner Dateien: erprobe sie unter Testen</translation></message>
<message><source>found as {0} {1}</source>
<translation>gefunden als {0} {1}</translation></message>
<message><source>it is not found as a mod</source>
<translation>sie wird nicht als Mod gefunden</translation></message>
<message><source>the game was not asked: its profile has no command for that that is allowed</source>
<translation>das Spiel wurde nicht gefragt: sein Profil hat keinen erlaubten Befehl dafür</translation></message>
<message><source>{0} is {1}: {2}</source>
<translation>{0} ist {1}: {2}</translation></message>
<message><source>Trying a package</source>
<translation>Ein Paket erproben</translation></message>
<message><source>{n} other</source>
<translation>{n} anderes</translation></message>
<message><source>{n} others</source>
<translation>{n} andere</translation></message>
<message><source>Package it again</source>
<translation>Pack das Paket noch einmal</translation></message>
<message><source>Nothing is another.</source>
<translation>Nichts ist anders.</translation></message>
<message><source>Gone</source>
<translation>Fort</translation></message>
<message><source>Changed</source>
<translation>Geändert</translation></message>
<message><source>in the game as it was built last</source>
<translation>im Spiel, wie zuletzt gebaut</translation></message>
<message><source>an older build is in the game</source>
<translation>im Spiel ist ein älterer Build</translation></message>
<message><source>in the game, switched off</source>
<translation>im Spiel, ausgeschaltet</translation></message>
<message><source>something else has its place in the game</source>
<translation>etwas anderes hat ihren Platz im Spiel</translation></message>
<message><source>built, not in the game</source>
<translation>gebaut, nicht im Spiel</translation></message>
<message><source>in the game; its build here is gone</source>
<translation>im Spiel; ihr Build hier ist fort</translation></message>
<message><source>, switched off</source>
<translation>, ausgeschaltet</translation></message>
<message><source>its project cannot be read</source>
<translation>ihr Projekt lässt sich nicht lesen</translation></message>
<message><source>its project is not there any more</source>
<translation>ihr Projekt ist nicht mehr da</translation></message>
<message><source>its game is not there any more</source>
<translation>ihr Spiel ist nicht mehr da</translation></message>
<message><source>somebody else's, in the game</source>
<translation>die eines anderen, im Spiel</translation></message>
<message><source>Laying figures out</source>
<translation>Figuren auslegen</translation></message>
<message><source>Say how large they are</source>
<translation>Sag, wie groß sie sind</translation></message>
<message><source>Listening</source>
<translation>Anhören</translation></message>
<message><source>Listening to {0=}</source>
<translation>{0} wird angehört</translation></message>
<message><source>Reading a step</source>
<translation>Einen Schritt lesen</translation></message>
<message><source>there is no such step</source>
<translation>einen solchen Schritt gibt es nicht</translation></message>
<message><source>Clear a colour</source>
<translation>Eine Farbe klären</translation></message>
<message><source>Take a colour out of the blend</source>
<translation>Eine Farbe aus der Mischung nehmen</translation></message>
<message><source>Clear or opaque</source>
<translation>Klar oder deckend</translation></message>
<message><source>Only inside an area</source>
<translation>Nur in einer Fläche</translation></message>
<message><source>Colour under clear pixels</source>
<translation>Farbe unter klaren Pixeln</translation></message>
<message><source>More or less opaque</source>
<translation>Mehr oder weniger deckend</translation></message>
<message><source>#{0} becomes clear, ±{1}</source>
<translation>#{0} wird klar, ±{1}</translation></message>
<message><source>#{0} becomes transparency, softly</source>
<translation>#{0} wird weich durchsichtig</translation></message>
<message><source>every pixel opaque</source>
<translation>jedes Pixel deckend</translation></message>
<message><source>opaque from alpha {0}</source>
<translation>deckend ab Alpha {0}</translation></message>
<message><source>clear where the original is clear</source>
<translation>klar, wo das Original klar ist</translation></message>
<message><source>{0}, elsewhere {1}</source>
<translation>{0}, sonst {1}</translation></message>
<message><source>alpha × {0}</source>
<translation>Alpha × {0}</translation></message>
<message><source>Colour</source>
<translation>Farbe</translation></message>
<message><source>Tolerance</source>
<translation>Spielraum</translation></message>
<message><source>Soft edge</source>
<translation>Weicher Rand</translation></message>
<message><source>Opaque from</source>
<translation>Deckend ab</translation></message>
<message><source>Elsewhere</source>
<translation>Anderswo</translation></message>
<message><source>The other way round</source>
<translation>Andersherum</translation></message>
<message><source>Fill with</source>
<translation>Füllen mit</translation></message>
<message><source>the nearest colour that is seen</source>
<translation>die nächste sichtbare Farbe</translation></message>
<message><source>Taking the original's alpha</source>
<translation>Das Alpha des Originals nehmen</translation></message>
<message><source>Keeping an area</source>
<translation>Eine Fläche behalten</translation></message>
<message><source>one colour</source>
<translation>eine Farbe</translation></message>
<message><source>Light and colour</source>
<translation>Licht und Farbe</translation></message>
<message><source>Brighter or darker</source>
<translation>Heller oder dunkler</translation></message>
<message><source>Contrast and gamma</source>
<translation>Kontrast und Gamma</translation></message>
<message><source>Tone curve</source>
<translation>Tonkurve</translation></message>
<message><source>Hue, saturation, lightness</source>
<translation>Farbton, Sättigung, Helligkeit</translation></message>
<message><source>Match the original's tones</source>
<translation>Töne des Originals angleichen</translation></message>
<message><source>Replace a colour</source>
<translation>Eine Farbe ersetzen</translation></message>
<message><source>Mix and pack channels</source>
<translation>Kanäle mischen und packen</translation></message>
<message><source>Few colours</source>
<translation>Wenige Farben</translation></message>
<message><source>{0} by {1} stops</source>
<translation>{0} um {1} Blenden</translation></message>
<message><source>contrast {0} %, gamma {1}</source>
<translation>Kontrast {0} %, Gamma {1}</translation></message>
<message><source>Black</source>
<translation>Schwarz</translation></message>
<message><source>White</source>
<translation>Weiß</translation></message>
<message><source>#{0} becomes #{1}, ±{2}</source>
<translation>#{0} wird #{1}, ±{2}</translation></message>
<message><source>Exposure</source>
<translation>Belichtung</translation></message>
<message><source>Gamma</source>
<translation>Gamma</translation></message>
<message><source>Of</source>
<translation>Von</translation></message>
<message><source>Turn the hue</source>
<translation>Farbton drehen</translation></message>
<message><source>Saturation</source>
<translation>Sättigung</translation></message>
<message><source>Lightness</source>
<translation>Helligkeit</translation></message>
<message><source>Only hues around</source>
<translation>Nur Töne um</translation></message>
<message><source>Within</source>
<translation>Im Umkreis</translation></message>
<message><source>Amount</source>
<translation>Menge</translation></message>
<message><source>Becomes</source>
<translation>Wird zu</translation></message>
<message><source>Soft border</source>
<translation>Weiche Grenze</translation></message>
<message><source>Keep light and dark</source>
<translation>Hell und dunkel behalten</translation></message>
<message><source>By</source>
<translation>Um</translation></message>
<message><source>other's {0}</source>
<translation>{0} des anderen</translation></message>
<message><source>Red from</source>
<translation>Rot aus</translation></message>
<message><source>Green from</source>
<translation>Grün aus</translation></message>
<message><source>Blue from</source>
<translation>Blau aus</translation></message>
<message><source>Alpha from</source>
<translation>Alpha aus</translation></message>
<message><source>Other picture</source>
<translation>Anderes Bild</translation></message>
<message><source>Dither</source>
<translation>Streuen</translation></message>
<message><source>the best {0}</source>
<translation>die besten {0}</translation></message>
<message><source>Matching tones</source>
<translation>Töne angleichen</translation></message>
<message><source>Reducing colours</source>
<translation>Farben verringern</translation></message>
<message><source>{0} becomes</source>
<translation>{0} wird</translation></message>
<message><source>Detail</source>
<translation>Feinheit</translation></message>
<message><source>Sharpen</source>
<translation>Schärfen</translation></message>
<message><source>Soften</source>
<translation>Weichzeichnen</translation></message>
<message><source>Lay over the original as a pattern</source>
<translation>Als Muster über das Original legen</translation></message>
<message><source>{0} % at {1} px</source>
<translation>{0} % bei {1} px</translation></message>
<message><source>{0} px</source>
<translation>{0} px</translation></message>
<message><source>{0} %, {1}°, folds {2} %</source>
<translation>{0} %, {1}°, Falten {2} %</translation></message>
<message><source>repeats {0}, blended over {1} %</source>
<translation>wiederholt {0}, überblendet auf {1} %</translation></message>
<message><source>Radius</source>
<translation>Radius</translation></message>
<message><source>Scale</source>
<translation>Maßstab</translation></message>
<message><source>Turn</source>
<translation>Drehen</translation></message>
<message><source>Folds and shade</source>
<translation>Falten und Schatten</translation></message>
<message><source>Lines and dirt</source>
<translation>Linien und Schmutz</translation></message>
<message><source>The original's colour</source>
<translation>Die Farbe des Originals</translation></message>
<message><source>Repeats</source>
<translation>Wiederholt</translation></message>
<message><source>Blend</source>
<translation>Überblenden</translation></message>
<message><source>Laying a pattern</source>
<translation>Ein Muster auflegen</translation></message>
<message><source>cells of {0} × {1}</source>
<translation>Zellen von {0} × {1}</translation></message>
<message><source>Lay figures out</source>
<translation>Figuren auslegen</translation></message>
<message><source>Sheet</source>
<translation>Bogen</translation></message>
<message><source>Take cells from the original</source>
<translation>Zellen vom Original nehmen</translation></message>
<message><source>Larger pixels</source>
<translation>Größere Pixel</translation></message>
<message><source>Cell's width</source>
<translation>Breite der Zelle</translation></message>
<message><source>Cell's height</source>
<translation>Höhe der Zelle</translation></message>
<message><source>Around the cells</source>
<translation>Um die Zellen</translation></message>
<message><source>Between cells</source>
<translation>Zwischen Zellen</translation></message>
<message><source>one cell</source>
<translation>eine Zelle</translation></message>
<message><source>filled, {0}</source>
<translation>gefüllt, {0}</translation></message>
<message><source>Taking cells from the original</source>
<translation>Zellen vom Original nehmen</translation></message>
<message><source>{0} times, {1}</source>
<translation>{0}-mal, {1}</translation></message>
<message><source>{0} times as large</source>
<translation>{0}-mal so groß</translation></message>
<message><source>{0} held</source>
<translation>{0} gehalten</translation></message>
<message><source>{0} left out</source>
<translation>{0} weggelassen</translation></message>
<message><source>{0} cut it off</source>
<translation>{0} abgeschnitten</translation></message>
<message><source>{0} taken for writing</source>
<translation>{0} für Schrift gehalten</translation></message>
<message><source>Animations' cells</source>
<translation>Zellen der Bewegungen</translation></message>
<message><source>One pixel is</source>
<translation>Ein Pixel ist</translation></message>
<message><source>Mirror each</source>
<translation>Jedes Bild spiegeln</translation></message>
<message><source>Ground's spread</source>
<translation>Spielraum des Grunds</translation></message>
<message><source>Further files</source>
<translation>Weitere Dateien</translation></message>
<message><source>Upside down</source>
<translation>Kopfüber</translation></message>
<message><source>each of {0} × {1}</source>
<translation>je {0} × {1}</translation></message>
<message><source>as one frame</source>
<translation>als ein Bild</translation></message>
<message><source> as the original's</source>
<translation> wie das des Originals</translation></message>
<message><source>All but those of</source>
<translation>Alle außer denen von</translation></message>
<message><source>Times</source>
<translation>Mal</translation></message>
<message><source>its frame map names no figure</source>
<translation>sein Bilderplan nennt keine Figur</translation></message>
<message><source>Write their numbers, or leave it empty</source>
<translation>Schreib ihre Nummern, oder lass ihn leer</translation></message>
<message><source>{0} times smaller</source>
<translation>{0}-mal kleiner</translation></message>
<message><source>it has {0} × {1} pixels, and this is another size</source>
<translation>es hat {0} × {1} Pixel, und das hier ist eine andere Größe</translation></message>
<message><source>Bring the sheet to the original's size before</source>
<translation>Bring den Bogen vorher auf die Größe des Originals</translation></message>
<message><source>what no animation has</source>
<translation>was keine Bewegung hat</translation></message>
<message><source>what is between the cells</source>
<translation>was zwischen den Zellen ist</translation></message>
<message><source>{n} mark</source>
<translation>{n} Zeichen</translation></message>
<message><source>{n} marks</source>
<translation>{n} Zeichen</translation></message>
<message><source>Size and place</source>
<translation>Größe und Ort</translation></message>
<message><source>{0} × {1} at {2}, {3}</source>
<translation>{0} × {1} bei {2}, {3}</translation></message>
<message><source>whole picture inside</source>
<translation>ganzes Bild darin</translation></message>
<message><source>Bring to size</source>
<translation>Auf Größe bringen</translation></message>
<message><source>Crop</source>
<translation>Zuschneiden</translation></message>
<message><source>Place on the original</source>
<translation>Auf das Original setzen</translation></message>
<message><source>to the right</source>
<translation>nach rechts</translation></message>
<message><source>half way</source>
<translation>halb herum</translation></message>
<message><source>to the left</source>
<translation>nach links</translation></message>
<message><source>Turn or mirror</source>
<translation>Drehen oder spiegeln</translation></message>
<message><source>left and right</source>
<translation>links und rechts</translation></message>
<message><source>above and below</source>
<translation>oben und unten</translation></message>
<message><source>cuts {0} off, {1}</source>
<translation>schneidet {0} ab, {1}</translation></message>
<message><source>{0} of it stays clear, {1}</source>
<translation>{0} davon bleibt klar, {1}</translation></message>
<message><source>Top</source>
<translation>Oben</translation></message>
<message><source>Width</source>
<translation>Breite</translation></message>
<message><source>by content</source>
<translation>nach Inhalt</translation></message>
<message><source>Filter</source>
<translation>Filter</translation></message>
<message><source>Game widens it</source>
<translation>Spiel verbreitert es</translation></message>
<message><source>Keep the original's alpha</source>
<translation>Das Alpha des Originals behalten</translation></message>
<message><source>turned {0}</source>
<translation>gedreht {0}</translation></message>
<message><source>mirrored {0}</source>
<translation>gespiegelt {0}</translation></message>
<message><source>Choose layers</source>
<translation>Ebenen wählen</translation></message>
<message><source>Take the ground away</source>
<translation>Den Grund wegnehmen</translation></message>
<message><source>Change colours exactly</source>
<translation>Farben genau ändern</translation></message>
<message><source>Touch up</source>
<translation>Ausbessern</translation></message>
<message><source>Make tiles</source>
<translation>Kacheln machen</translation></message>
<message><source>{0} by hand</source>
<translation>{0} von Hand</translation></message>
<message><source>Making tiles</source>
<translation>Kacheln machen</translation></message>
<message><source>tiles of {0} pixels into {1} of {2}</source>
<translation>Kacheln von {0} Pixeln in {1} von {2}</translation></message>
<message><source>from {0}, {1}</source>
<translation>ab {0}, {1}</translation></message>
<message><source>the source has no layers</source>
<translation>die Quelle hat keine Ebenen</translation></message>
<message><source>those that are visible</source>
<translation>die sichtbaren</translation></message>
<message><source>Spread</source>
<translation>Spielraum</translation></message>
<message><source>From the border only</source>
<translation>Nur vom Rand her</translation></message>
<message><source>{0} changed</source>
<translation>{0} geändert</translation></message>
<message><source>{0} brought back to locked colours</source>
<translation>{0} auf gesperrte Farben zurückgebracht</translation></message>
<message><source>nothing to do</source>
<translation>nichts zu tun</translation></message>
<message><source>Locked colours</source>
<translation>Gesperrte Farben</translation></message>
<message><source>Bring back from</source>
<translation>Zurückbringen ab</translation></message>
<message><source>{0} outside the picture</source>
<translation>{0} außerhalb des Bilds</translation></message>
<message><source>{n} touch</source>
<translation>{n} Handgriff</translation></message>
<message><source>{n} touches</source>
<translation>{n} Handgriffe</translation></message>
<message><source>Sides that go on</source>
<translation>Seiten, die weitergehen</translation></message>
<message><source>Made from</source>
<translation>Gemacht aus</translation></message>
<message><source>A tile's side (0: found)</source>
<translation>Seite einer Kachel (0: gesucht)</translation></message>
<message><source>A larger cell by</source>
<translation>Eine größere Zelle um</translation></message>
<message><source>Begins at</source>
<translation>Beginnt bei</translation></message>
<message><source>Choosing layers</source>
<translation>Ebenen wählen</translation></message>
<message><source>{n} layer</source>
<translation>{n} Ebene</translation></message>
<message><source>{n} layers</source>
<translation>{n} Ebenen</translation></message>
<message><source>a block of 3 × 3</source>
<translation>ein Block von 3 × 3</translation></message>
<message><source>one tile</source>
<translation>eine Kachel</translation></message>
<message><source>the source has no such layer</source>
<translation>die Quelle hat keine solche Ebene</translation></message>
<message><source>no ground</source>
<translation>kein Grund</translation></message>
<message><source>the colours that are found</source>
<translation>die Farben, die gefunden werden</translation></message>
<message><source>{n} locked colour</source>
<translation>{n} gesperrte Farbe</translation></message>
<message><source>{n} locked colours</source>
<translation>{n} gesperrte Farben</translation></message>
<message><source>locked colour</source>
<translation>gesperrte Farbe</translation></message>
<message><source>Take a part</source>
<translation>Einen Teil nehmen</translation></message>
<message><source>Cut off silence</source>
<translation>Stille abschneiden</translation></message>
<message><source>Fade in and out</source>
<translation>Ein- und ausblenden</translation></message>
<message><source>Never above</source>
<translation>Nie darüber</translation></message>
<message><source>Louder or quieter</source>
<translation>Lauter oder leiser</translation></message>
<message><source>Match loudness</source>
<translation>Lautheit angleichen</translation></message>
<message><source>Remove DC</source>
<translation>Gleichanteil entfernen</translation></message>
<message><source>Mono or stereo</source>
<translation>Mono oder stereo</translation></message>
<message><source>Resample</source>
<translation>Rate umrechnen</translation></message>
<message><source>Take away the lows</source>
<translation>Tiefen wegnehmen</translation></message>
<message><source>Below</source>
<translation>Unter</translation></message>
<message><source>Take away the highs</source>
<translation>Höhen wegnehmen</translation></message>
<message><source>Above</source>
<translation>Über</translation></message>
<message><source>Stretch to length</source>
<translation>Auf Länge dehnen</translation></message>
<message><source>Change the tempo</source>
<translation>Das Tempo ändern</translation></message>
<message><source>Change the pitch</source>
<translation>Die Tonhöhe ändern</translation></message>
<message><source>Cut or fill to length</source>
<translation>Auf Länge schneiden oder füllen</translation></message>
<message><source>Make a loop</source>
<translation>Eine Schleife machen</translation></message>
<message><source>Cut to whole bars</source>
<translation>Auf ganze Takte schneiden</translation></message>
<message><source>Lay a file over it</source>
<translation>Eine Datei darüberlegen</translation></message>
<message><source>Put an intro before the loop</source>
<translation>Ein Vorspiel vor die Schleife setzen</translation></message>
<message><source>{0} ms before, {1} ms behind</source>
<translation>{0} ms davor, {1} ms dahinter</translation></message>
<message><source>in {0} ms, out {1} ms, {2}</source>
<translation>ein {0} ms, aus {1} ms, {2}</translation></message>
<message><source>{0} dB, never above {1} dBTP</source>
<translation>{0} dB, nie über {1} dBTP</translation></message>
<message><source>{0} LUFS, never above {1} dBTP</source>
<translation>{0} LUFS, nie über {1} dBTP</translation></message>
<message><source>centred on zero</source>
<translation>um null zentriert</translation></message>
<message><source>to {0}</source>
<translation>auf {0}</translation></message>
<message><source>to {0} Hz</source>
<translation>auf {0} Hz</translation></message>
<message><source>to {0} frames, same pitch</source>
<translation>auf {0} Frames, gleiche Tonhöhe</translation></message>
<message><source>{0} of its length</source>
<translation>{0} seiner Länge</translation></message>
<message><source>{0} to {1} bpm at the same pitch</source>
<translation>{0} auf {1} bpm bei gleicher Tonhöhe</translation></message>
<message><source>{0} semitones at the same length</source>
<translation>{0} Halbtöne bei gleicher Länge</translation></message>
<message><source>{0} frames, filled with {1}</source>
<translation>{0} Frames, gefüllt mit {1}</translation></message>
<message><source>{0} frames from {1}, cross-fade {2} ms</source>
<translation>{0} Frames ab {1}, überblendet {2} ms</translation></message>
<message><source>{0} bars of {1} at {2} bpm</source>
<translation>{0} Takte aus {1} bei {2} bpm</translation></message>
<message><source>Layering sounds</source>
<translation>Töne schichten</translation></message>
<message><source>{0} at {1} s</source>
<translation>{0} bei {1} s</translation></message>
<message><source>{0}, then the loop</source>
<translation>{0}, dann die Schleife</translation></message>
<message><source>From</source>
<translation>Ab</translation></message>
<message><source>Length (0: to the end)</source>
<translation>Länge (0: bis zum Ende)</translation></message>
<message><source>{0} s from {1} s</source>
<translation>{0} s ab {1} s</translation></message>
<message><source>from {0} s on</source>
<translation>ab {0} s</translation></message>
<message><source>Below its loudest</source>
<translation>Unter dem Lautesten</translation></message>
<message><source>Fade in</source>
<translation>Einblenden</translation></message>
<message><source>Fade out</source>
<translation>Ausblenden</translation></message>
<message><source>Curve</source>
<translation>Kurve</translation></message>
<message><source>limited by up to {0} dB</source>
<translation>begrenzt um bis zu {0} dB</translation></message>
<message><source>nothing to limit</source>
<translation>nichts zu begrenzen</translation></message>
<message><source>Gain</source>
<translation>Verstärkung</translation></message>
<message><source>Mix to mono</source>
<translation>Auf mono mischen</translation></message>
<message><source>Hz</source>
<translation>Hz</translation></message>
<message><source>{0} {1} Hz, {2} per octave</source>
<translation>{0} {1} Hz, {2} je Oktave</translation></message>
<message><source>To</source>
<translation>Auf</translation></message>
<message><source>of silence behind it</source>
<translation>Stille dahinter</translation></message>
<message><source>repeated behind it</source>
<translation>dahinter wiederholt</translation></message>
<message><source>Fill up with</source>
<translation>Auffüllen mit</translation></message>
<message><source>Fade where cut</source>
<translation>Am Schnitt ausblenden</translation></message>
<message><source>{0} to {1} s, its ends {2} alike</source>
<translation>{0} bis {1} s, seine Enden {2} gleich</translation></message>
<message><source>Look for a better seam within</source>
<translation>Nach einer besseren Naht suchen in</translation></message>
<message><source>Keep the length</source>
<translation>Die Länge behalten</translation></message>
<message><source>Cross-fade keeps</source>
<translation>Überblendung behält</translation></message>
<message><source>Only what repeats</source>
<translation>Nur was sich wiederholt</translation></message>
<message><source>Cutting to whole bars</source>
<translation>Auf ganze Takte schneiden</translation></message>
<message><source>{0} bars, repeated to {1}</source>
<translation>{0} Takte, wiederholt bis {1}</translation></message>
<message><source>First beat at</source>
<translation>Erster Schlag bei</translation></message>
<message><source>Beats to a bar</source>
<translation>Schläge je Takt</translation></message>
<message><source>Bars</source>
<translation>Takte</translation></message>
<message><source>Its part from</source>
<translation>Sein Teil ab</translation></message>
<message><source>What lies under it fades away</source>
<translation>Was darunter liegt, blendet aus</translation></message>
<message><source>Slope per octave</source>
<translation>Steilheit je Oktave</translation></message>
<message><source>{0} s cut off its end</source>
<translation>{0} s am Ende abgeschnitten</translation></message>
<message><source>from {0} s on it has less than one bar</source>
<translation>ab {0} s hat es weniger als einen Takt</translation></message>
<message><source>Correct the tempo, the meter or the first beat</source>
<translation>Berichtige das Tempo, den Takt oder den ersten Schlag</translation></message>
<message><source>Putting an intro before</source>
<translation>Ein Vorspiel davorsetzen</translation></message>
<message><source>no file yet</source>
<translation>noch keine Datei</translation></message>
<message><source>true or false</source>
<translation>wahr oder falsch</translation></message>
<message><source>there is no original to look at</source>
<translation>es gibt kein Original zum Ansehen</translation></message>
<message><source>Use it in a swap</source>
<translation>Nimm es in einem Tausch</translation></message>
<message><source>no file is chosen</source>
<translation>keine Datei ist gewählt</translation></message>
<message><source>Choose a picture in the step's settings</source>
<translation>Wähle in den Einstellungen des Schritts ein Bild</translation></message>
<message><source>Choose a sound in the step's settings</source>
<translation>Wähle in den Einstellungen des Schritts ein Geräusch</translation></message>
<message><source>{0=} is not allowed</source>
<translation>{0} ist nicht erlaubt</translation></message>
<message><source>a path</source>
<translation>ein Pfad</translation></message>
<message><source>a text</source>
<translation>ein Text</translation></message>
<message><source>one of {0}</source>
<translation>eins von {0}</translation></message>
<message><source>it has no such setting</source>
<translation>eine solche Einstellung hat er nicht</translation></message>
<message><source>six hex digits, like 20a040</source>
<translation>sechs Hexziffern, wie 20a040</translation></message>
<message><source>a number from {0} to {1}</source>
<translation>eine Zahl von {0} bis {1}</translation></message>
<message><source>a whole number</source>
<translation>eine ganze Zahl</translation></message>
<message><source>Change by another program</source>
<translation>Änderung durch ein anderes Programm</translation></message>
<message><source>Check the permissions</source>
<translation>Prüfe die Rechte</translation></message>
<message><source>another program left it so that it cannot be read ({0})</source>
<translation>ein anderes Programm hat sie so hinterlassen, dass sie nicht zu lesen ist ({0})</translation></message>
<message><source>Bring it in order there; what you edit here is in {0} until then</source>
<translation>Bring sie dort in Ordnung; was du hier änderst, ist bis dahin in {0}</translation></message>
<message><source>strips {0}</source>
<translation>Farbreihe {0}</translation></message>
<message><source>Take the strip from the figure, or the figure's colours from the strip</source>
<translation>Nimm die Reihe aus der Figur, oder die Farben der Figur aus der Reihe</translation></message>
<message><source>{0} that the strip lacks: {1}</source>
<translation>{0}, die der Reihe fehlen: {1}</translation></message>
<message><source>its strip</source>
<translation>ihre Farbreihe</translation></message>
<message><source>its {0} strips</source>
<translation>ihre {0} Farbreihen</translation></message>
<message><source>{0} not grey</source>
<translation>{0} nicht grau</translation></message>
<message><source>there are no colours in it</source>
<translation>es sind keine Farben darin</translation></message>
<message><source>Take it from a picture first</source>
<translation>Nimm sie zuerst aus einem Bild</translation></message>
<message><source>as {0}</source>
<translation>als {0}</translation></message>
<message><source>Give a PNG, TGA or DDS</source>
<translation>Gib ein PNG, TGA oder DDS</translation></message>
<message><source>its colours have names, and the figure does not tell which is which</source>
<translation>ihre Farben haben Namen, und die Figur sagt nicht, welche welche ist</translation></message>
<message><source>Take it from a picture of the row, in the order of the names</source>
<translation>Nimm sie aus einem Bild der Reihe, in der Reihenfolge der Namen</translation></message>
<message><source>Take it from a picture of the row of colours</source>
<translation>Nimm sie aus einem Bild der Farbreihe</translation></message>
<message><source>the game's profile does not say that it is a strip</source>
<translation>das Profil des Spiels sagt nicht, dass es eine Farbreihe ist</translation></message>
<message><source>Say so with [[values]] and strip</source>
<translation>Sag es mit [[values]] und strip</translation></message>
<message><source>it has {0} for {1}</source>
<translation>es hat {0} für {1}</translation></message>
<message><source>Give a picture with as many colours as it has names</source>
<translation>Gib ein Bild mit so vielen Farben, wie sie Namen hat</translation></message>
<message><source>the figure has {0}</source>
<translation>die Figur hat {0}</translation></message>
<message><source>{0} has {1}</source>
<translation>{0} hat {1}</translation></message>
<message><source>Take the strip from the figure</source>
<translation>Nimm die Reihe aus der Figur</translation></message>
<message><source>{n} name</source>
<translation>{n} Name</translation></message>
<message><source>{n} names</source>
<translation>{n} Namen</translation></message>
<message><source>{0} stands there already</source>
<translation>{0} steht schon da</translation></message>
<message><source>Remove {0} first: this game has one file there, and two mods cannot share it</source>
<translation>Zuerst {0} entfernen: Das Spiel hat dort eine Datei, die sich zwei Mods nicht teilen können</translation></message>
<message><source>{0} and {1} both change it</source>
<translation>{0} und {1} ändern es beide</translation></message>
<message><source>Have one of the two: remove {0} first, or take the swap out of {1}</source>
<translation>Einen der beiden nehmen: zuerst {0} entfernen, oder den Tausch aus {1} herausnehmen</translation></message>
<message><source>Reading what {0=} changes</source>
<translation>Wird gelesen: was {0=} ändert</translation></message>
<message><source>what was read back of both mods together is not what was written</source>
<translation>was von beiden Mods zusammen zurückgelesen wurde, ist nicht, was geschrieben wurde</translation></message>
<message><source>Check the disk, or have one of the mods at a time</source>
<translation>Die Platte prüfen, oder immer nur einen der Mods haben</translation></message>
<message><source>{0=}: the game's own again</source>
<translation>{0}: wieder das des Spiels</translation></message>
<message><source>{0} is new</source>
<translation>{0} ist neu</translation></message>
<message><source>event {0=}: other settings</source>
<translation>Ereignis {0}: andere Einstellungen</translation></message>
<message><source>no longer swapped</source>
<translation>nicht mehr getauscht</translation></message>
<message><source>and {0}</source>
<translation>und {0}</translation></message>
<message><source>the order of the swaps</source>
<translation>die Reihenfolge der Tausche</translation></message>
<message><source>the game: {0} → {1}</source>
<translation>das Spiel: {0} → {1}</translation></message>
<message><source>source: {0} → {1}</source>
<translation>Quelle: {0} → {1}</translation></message>
<message><source>how it is encoded</source>
<translation>wie es kodiert ist</translation></message>
<message><source>kept as it is: {0}</source>
<translation>behalten, wie es ist: {0}</translation></message>
<message><source>credit: {0} → {1}</source>
<translation>Nennung: {0} → {1}</translation></message>
<message><source>{n} more value</source>
<translation>{n} weiterer Wert</translation></message>
<message><source>{n} more values</source>
<translation>{n} weitere Werte</translation></message>
<message><source>swapped for {0}</source>
<translation>getauscht gegen {0}</translation></message>
<message><source>steps: {0} → {1}</source>
<translation>Schritte: {0} → {1}</translation></message>
<message><source>a step's settings</source>
<translation>die Einstellungen eines Schritts</translation></message>
<message><source>more value</source>
<translation>weiterer Wert</translation></message>
<message><source>Trying formats</source>
<translation>Formate probieren</translation></message>
<message><source>Trying {0}</source>
<translation>{0} wird probiert</translation></message>
<message><source>{0} bars at {1} bpm</source>
<translation>{0} Takte bei {1} bpm</translation></message>
<message><source>as long as the tune</source>
<translation>so lang wie das Stück</translation></message>
<message><source>, made {0} {1}</source>
<translation>, {0} gemacht: {1}</translation></message>
<message><source>Listing tunes</source>
<translation>Stücke auflisten</translation></message>
<message><source>Listening to {0}</source>
<translation>{0} wird angehört</translation></message>
<message><source>no steady beat: {0} of it, cross-faded where they are most alike</source>
<translation>kein steter Schlag: {0} davon, überblendet, wo es am ähnlichsten ist</translation></message>
<message><source>too long: cut to {0}</source>
<translation>zu lang: auf {0} geschnitten</translation></message>
<message><source>, repeated: it is too short</source>
<translation>, wiederholt: es ist zu kurz</translation></message>
<message><source>too short: repeated {0} times, the joins may be heard</source>
<translation>zu kurz: {0}-mal wiederholt, die Stöße sind vielleicht zu hören</translation></message>
<message><source>Making a moving picture</source>
<translation>Ein bewegtes Bild machen</translation></message>
<message><source>it is no sheet of frames that this mod changes</source>
<translation>es ist kein Bogen mit Bildern, den diese Mod ändert</translation></message>
<message><source>there is no result yet</source>
<translation>noch gibt es kein Ergebnis</translation></message>
<message><source>Make it fit first</source>
<translation>Mach es zuerst passend</translation></message>
<message><source>none of the cells of its animations is in it</source>
<translation>keine der Zellen seiner Bewegungen ist darin</translation></message>
<message><source>Unpacking {0}</source>
<translation>{0} wird entpackt</translation></message>
<message><source>it is {0}, and mods are plain files</source>
<translation>es ist {0}, und Mods sind einfache Dateien</translation></message>
<message><source>it claims to be far more than a mod is</source>
<translation>es behauptet, weit mehr zu sein, als eine Mod ist</translation></message>
<message><source>there is not that much room on the disk</source>
<translation>so viel Platz ist auf der Platte nicht</translation></message>
<message><source>it is smaller than it says</source>
<translation>es ist kleiner, als es sagt</translation></message>
<message><source>{0} is in it twice, or in another spelling of the same name</source>
<translation>{0} ist zweimal darin, oder in anderer Schreibung desselben Namens</translation></message>
<message><source>Nothing was put into the game. Ask whoever made it for another package</source>
<translation>Nichts kam ins Spiel. Bitte den, der sie gemacht hat, um ein anderes Paket</translation></message>
<message><source>a link</source>
<translation>eine Verknüpfung</translation></message>
<message><source>a device</source>
<translation>ein Gerät</translation></message>
<message><source>{0} is the name of a device on some systems</source>
<translation>{0} heißt auf manchen Systemen ein Gerät</translation></message>
<message><source>a part of its path is longer than a name can be, or has signs that no name has</source>
<translation>ein Teil seines Pfads ist länger, als ein Name sein kann, oder hat Zeichen, die kein Name hat</translation></message>
<message><source>{0} and {1} would be one folder on some systems, or a file and a folder</source>
<translation>{0} und {1} wären auf manchen Systemen ein Ordner, oder eine Datei und ein Ordner</translation></message>
<message><source>it could not be unpacked</source>
<translation>es ließ sich nicht entpacken</translation></message>
<message><source>a link or a device</source>
<translation>eine Verknüpfung oder ein Gerät</translation></message>
<message><source>it is larger than it says</source>
<translation>es ist größer, als es sagt</translation></message>
<message><source>it is no ZIP, no 7z, no TAR and no folder</source>
<translation>es ist kein ZIP, kein 7z, kein TAR und kein Ordner</translation></message>
<message><source>Unpack it with the program that it was packed with, and give the folder</source>
<translation>Entpack es mit dem Programm, mit dem es gepackt wurde, und gib den Ordner</translation></message>
<message><source>Look at both, then fit again</source>
<translation>Sieh beide an, dann pass neu an</translation></message>
<message><source>{0}: it has another path</source>
<translation>{0}: es hat einen anderen Pfad</translation></message>
<message><source>Starting a mod</source>
<translation>Eine Mod beginnen</translation></message>
<message><source>Opening a mod</source>
<translation>Eine Mod öffnen</translation></message>
<message><source>Adding a swap</source>
<translation>Einen Tausch hinzufügen</translation></message>
<message><source>is {0} now</source>
<translation>ist jetzt {0}</translation></message>
<message><source>Match it points the swap to {0}</source>
<translation>Angleichen lässt den Tausch auf {0} zeigen</translation></message>
<message><source>there is a project already</source>
<translation>es gibt schon ein Projekt</translation></message>
<message><source>Open it, or choose another folder</source>
<translation>Öffne es, oder wähle einen anderen Ordner</translation></message>
<message><source>its game is not at {0}</source>
<translation>ihr Spiel ist nicht bei {0}</translation></message>
<message><source>Say where the game is now with --game, or edit game.folder</source>
<translation>Sag mit --game, wo das Spiel jetzt ist, oder bearbeite game.folder</translation></message>
<message><source>it is for {0}, and {1} is {2}</source>
<translation>sie ist für {0}, und {1} ist {2}</translation></message>
<message><source>Its content is {0} now: Match it points the swap there</source>
<translation>Sein Inhalt ist jetzt {0}: Angleichen lässt den Tausch dorthin zeigen</translation></message>
<message><source>Examining</source>
<translation>Untersuchen</translation></message>
<message><source>made for the older one</source>
<translation>für das ältere gemacht</translation></message>
<message><source>not in the game</source>
<translation>nicht im Spiel</translation></message>
<message><source>no archive of the game has anything in its folder, so that there is none to put it into</source>
<translation>kein Archiv des Spiels hat etwas in seinem Ordner, so dass es in keins kommen kann</translation></message>
<message><source>Give it a path beside others of its kind, or remove the swap</source>
<translation>Gib ihm einen Pfad neben anderen seiner Art, oder entferne den Tausch</translation></message>
<message><source>it would be the same file in the mod as {0}: {1}</source>
<translation>es wäre in der Mod dieselbe Datei wie {0}: {1}</translation></message>
<message><source>Keep one of the two, or let mods go another way (goes in the profile's [mods])</source>
<translation>Behalte eins der beiden, oder lass Mods einen anderen Weg gehen (goes in den [mods] des Profils)</translation></message>
<message><source>Working</source>
<translation>Working</translation></message>
<message><source>the file</source>
<translation>die Datei</translation></message>
<message><source>, found {0}</source>
<translation>, gefunden {0}</translation></message>
<message><source>there is no such key</source>
<translation>einen solchen Schlüssel gibt es nicht</translation></message>
<message><source>an inner path has no '..', no leading or doubled '/' and no backslash</source>
<translation>ein innerer Pfad hat kein '..', kein '/' am Anfang oder doppelt und keinen Rückstrich</translation></message>
<message><source>a name in a path has at most 255 bytes</source>
<translation>ein Name in einem Pfad hat höchstens 255 Bytes</translation></message>
<message><source>** stands alone between two '/'</source>
<translation>** steht allein zwischen zwei '/'</translation></message>
<message><source>it ends with the name of a file, such as **/*.dds</source>
<translation>er endet mit dem Namen einer Datei, wie **/*.dds</translation></message>
<message><source>it has control characters</source>
<translation>er hat Steuerzeichen</translation></message>
<message><source>a version has letters, digits, dots and hyphens, such as 1.2: it is part of a file's name</source>
<translation>eine Version hat Buchstaben, Ziffern, Punkte und Striche, wie 1.2: sie ist Teil eines Dateinamens</translation></message>
<message><source>it has to lie inside the game's folder: {0}</source>
<translation>es muss im Ordner des Spiels liegen: {0}</translation></message>
<message><source>a folder of the user's begins with one of {0}</source>
<translation>ein Ordner des Benutzers beginnt mit einem von {0}</translation></message>
<message><source>it needs {{0}} in it</source>
<translation>es braucht {{0}} darin</translation></message>
<message><source>a key has too many parts (at line {0})</source>
<translation>ein Schlüssel hat zu viele Teile (in Zeile {0})</translation></message>
<message><source>it is nested too deep</source>
<translation>es ist zu tief verschachtelt</translation></message>
<message><source>at line (\d+)</source>
<translation>in Zeile (\d+)</translation></message>
<message><source>Part</source>
<translation>Teil</translation></message>
<message><source>it can be {0}, or {1}</source>
<translation>es kann {0} sein, oder {1}</translation></message>
<message><source>it is too wide</source>
<translation>es ist zu breit</translation></message>
<message><source>what can stand in braces is {0}</source>
<translation>in Klammern kann stehen: {0}</translation></message>
<message><source>{0} lists what is allowed</source>
<translation>{0} listet auf, was erlaubt ist</translation></message>
<message><source>tracker music</source>
<translation>Trackermusik</translation></message>
<message><source>MIDI music</source>
<translation>MIDI-Musik</translation></message>
<message><source>a video</source>
<translation>ein Video</translation></message>
<message><source>Matroska</source>
<translation>Matroska</translation></message>
<message><source>Theora</source>
<translation>Theora</translation></message>
<message><source>a shape</source>
<translation>eine Form</translation></message>
<message><source>a database</source>
<translation>eine Datenbank</translation></message>
<message><source>a table of a database</source>
<translation>eine Tabelle einer Datenbank</translation></message>
<message><source>a translation, compiled</source>
<translation>eine Übersetzung, übersetzt abgelegt</translation></message>
<message><source>Lua</source>
<translation>Lua</translation></message>
<message><source>a script, compiled</source>
<translation>ein Skript, übersetzt abgelegt</translation></message>
<message><source>a document</source>
<translation>ein Dokument</translation></message>
<message><source>an icon</source>
<translation>ein Symbol</translation></message>
<message><source>a script</source>
<translation>ein Skript</translation></message>
<message><source>a translation</source>
<translation>eine Übersetzung</translation></message>
<message><source>a translation to be made</source>
<translation>eine Übersetzung, die noch fehlt</translation></message>
<message><source>a shader</source>
<translation>ein Shader</translation></message>
<message><source>a page</source>
<translation>eine Seite</translation></message>
<message><source>a drawing</source>
<translation>eine Zeichnung</translation></message>
<message><source>unexpected end of data</source>
<translation>unerwartetes Ende der Daten</translation></message>
<message><source>C sharp</source>
<translation>Cis</translation></message>
<message><source>E flat</source>
<translation>Es</translation></message>
<message><source>F sharp</source>
<translation>Fis</translation></message>
<message><source>A flat</source>
<translation>As</translation></message>
<message><source>B flat</source>
<translation>B</translation></message>
<message><source>{0} minor</source>
<translation>{0}-Moll</translation></message>
<message><source>{0} major</source>
<translation>{0}-Dur</translation></message>
<message><source>even power</source>
<translation>gleiche Leistung</translation></message>
<message><source>slow start</source>
<translation>langsamer Anfang</translation></message>
<message><source>fast start</source>
<translation>schneller Anfang</translation></message>
<message><source>Taking a part of a sound</source>
<translation>Einen Teil eines Geräuschs nehmen</translation></message>
<message><source>Changing a sound's length</source>
<translation>Die Länge eines Geräuschs ändern</translation></message>
<message><source>A clip</source>
<translation>Ein Stück Ton</translation></message>
<message><source>there is nothing from frame {0} to {1}</source>
<translation>von Frame {0} bis {1} ist nichts</translation></message>
<message><source>It has {0} frames</source>
<translation>Es hat {0} Frames</translation></message>
<message><source>{0} frames is no length</source>
<translation>{0} Frames sind keine Länge</translation></message>
<message><source>samples are {0} {1}, not (frames, channels) float32</source>
<translation>die Samples sind {0} {1}, nicht (Frames, Kanäle) float32</translation></message>
<message><source>{0} Hz is no sample rate</source>
<translation>{0} Hz ist keine Sample-Rate</translation></message>
<message><source>{0} frames cannot repeat {1} to {2}</source>
<translation>{0} Frames können {1} bis {2} nicht wiederholen</translation></message>
<message><source>Reading a sound</source>
<translation>Ein Geräusch lesen</translation></message>
<message><source>Opus</source>
<translation>Opus</translation></message>
<message><source>IMA ADPCM</source>
<translation>IMA ADPCM</translation></message>
<message><source>MS ADPCM</source>
<translation>MS ADPCM</translation></message>
<message><source>Ogg</source>
<translation>Ogg</translation></message>
<message><source>Writing a sound</source>
<translation>Ein Geräusch schreiben</translation></message>
<message><source>PCM {0}</source>
<translation>PCM {0}</translation></message>
<message><source>{0} with {1} is not written</source>
<translation>{0} mit {1} wird nicht geschrieben</translation></message>
<message><source>{0} has no {1} Hz</source>
<translation>{0} kennt {1} Hz nicht</translation></message>
<message><source>Resample to {0} Hz</source>
<translation>Rechne um auf {0} Hz</translation></message>
<message><source>it is not a WAV, FLAC, Ogg, MP3 or AIFF file</source>
<translation>es ist keine WAV-, FLAC-, Ogg-, MP3- oder AIFF-Datei</translation></message>
<message><source>Save it as WAV in your sound editor</source>
<translation>Speichere es in deinem Tonprogramm als WAV</translation></message>
<message><source>it says {0} frames at {1} Hz</source>
<translation>es nennt {0} Frames bei {1} Hz</translation></message>
<message><source>It is damaged, or no sound</source>
<translation>Es ist beschädigt, oder kein Ton</translation></message>
<message><source>{0} minutes are longer than Furnel opens at once</source>
<translation>{0} Minuten sind länger, als Furnel auf einmal öffnet</translation></message>
<message><source>Take a part of it: the first step can</source>
<translation>Nimm einen Teil davon: der erste Schritt kann das</translation></message>
<message><source>there is nothing from {0} s on</source>
<translation>ab {0} s ist nichts</translation></message>
<message><source>It is {0} s long</source>
<translation>Es ist {0} s lang</translation></message>
<message><source>{0} with {1} does not take it ({2})</source>
<translation>{0} mit {1} nimmt es nicht ({2})</translation></message>
<message><source>Use another rate or fewer channels</source>
<translation>Nimm eine andere Rate oder weniger Kanäle</translation></message>
<message><source>L R BL BR</source>
<translation>L R BL BR</translation></message>
<message><source>L R C BL BR</source>
<translation>L R C BL BR</translation></message>
<message><source>L R C LFE BL BR</source>
<translation>L R C LFE BL BR</translation></message>
<message><source>L R C LFE BC SL SR</source>
<translation>L R C LFE BC SL SR</translation></message>
<message><source>L R C LFE BL BR SL SR</source>
<translation>L R C LFE BL BR SL SR</translation></message>
<message><source>Making a loop</source>
<translation>Eine Schleife machen</translation></message>
<message><source>{0} to {1} is not inside its {2} frames</source>
<translation>{0} bis {1} liegt nicht in seinen {2} Frames</translation></message>
<message><source>intro and loop have other rates or channels</source>
<translation>Vorspiel und Schleife haben andere Raten oder Kanäle</translation></message>
<message><source>Resample and mix them alike first</source>
<translation>Rechne um und misch sie zuerst gleich</translation></message>
<message><source>Measuring a sound</source>
<translation>Ein Geräusch messen</translation></message>
<message><source>Filtering a sound</source>
<translation>Ein Geräusch filtern</translation></message>
<message><source>at {0} Hz it has nothing above {1} Hz</source>
<translation>bei {0} Hz hat es nichts über {1} Hz</translation></message>
<message><source>Choose less</source>
<translation>Wähle weniger</translation></message>
<message><source>they have other rates or channels</source>
<translation>sie haben andere Raten oder Kanäle</translation></message>
<message><source>Stretching a sound</source>
<translation>Ein Geräusch dehnen</translation></message>
<message><source>from {0} to {1} frames is more than four times</source>
<translation>von {0} auf {1} Frames ist mehr als das Vierfache</translation></message>
<message><source>Cut or repeat it first, then stretch what is missing</source>
<translation>Schneide oder wiederhole es zuerst, dann dehne, was fehlt</translation></message>
<message><source>{0} channels</source>
<translation>{0} Kanäle</translation></message>
<message><source>the frame map has {0} cells, the sheet {1}</source>
<translation>der Bilderplan hat {0} Zellen, der Bogen {1}</translation></message>
<message><source>Leave the last ones out</source>
<translation>Lass die letzten weg</translation></message>
<message><source>it is no cell of a frame map</source>
<translation>das ist keine Zelle eines Bilderplans</translation></message>
<message><source>Write the figure's number, f for mirrored, x2 for twice as large, how far it is moved: 3, 3f, 3fx2+1-2; or - for an empty cell, = for the original's</source>
<translation>Schreib die Nummer der Figur, f für gespiegelt, x2 für doppelt so groß, wie weit sie versetzt ist: 3, 3f, 3fx2+1-2; oder - für eine leere Zelle, = für die des Originals</translation></message>
<message><source>the source has {0} figures</source>
<translation>die Quelle hat {0} Figuren</translation></message>
<message><source>Name one of these</source>
<translation>Nenne eine davon</translation></message>
<message><source>Cutting a sheet into frames</source>
<translation>Einen Bogen in Bilder schneiden</translation></message>
<message><source>{0} × {1} pixels are not a whole number of {2} × {3} cells</source>
<translation>{0} × {1} Pixel sind keine ganze Zahl von Zellen zu {2} × {3}</translation></message>
<message><source>Bring the sheet to the original's size</source>
<translation>Bring den Bogen auf die Größe des Originals</translation></message>
<message><source>Reading cells</source>
<translation>Zellen lesen</translation></message>
<message><source>it is no number of a cell, and no run of them</source>
<translation>das ist keine Zellennummer und keine Folge davon</translation></message>
<message><source>Reading a palette's changes</source>
<translation>Die Änderungen einer Palette lesen</translation></message>
<message><source>Reading colours</source>
<translation>Farben lesen</translation></message>
<message><source>it is no change of a colour</source>
<translation>das ist kein Farbwechsel</translation></message>
<message><source>Write six hex digits each: c03020&gt;2060c0</source>
<translation>Schreib je sechs Hexziffern: c03020&gt;2060c0</translation></message>
<message><source>{0} becomes another colour already</source>
<translation>{0} wird schon eine andere Farbe</translation></message>
<message><source>Leave one of them out</source>
<translation>Lass eine davon weg</translation></message>
<message><source>it is no colour</source>
<translation>das ist keine Farbe</translation></message>
<message><source>Write six hex digits: c03020</source>
<translation>Schreib sechs Hexziffern: c03020</translation></message>
<message><source>Looking for figures</source>
<translation>Figuren suchen</translation></message>
<message><source>there is nothing but ground in it</source>
<translation>darin ist nichts als Grund</translation></message>
<message><source>Use a picture with figures</source>
<translation>Nimm ein Bild mit Figuren</translation></message>
<message><source>there is nothing but ground in any of its frames</source>
<translation>in keinem seiner Bilder ist etwas anderes als Grund</translation></message>
<message><source>Use a file with figures</source>
<translation>Nimm eine Datei mit Figuren</translation></message>
<message><source>kept edges</source>
<translation>gehaltene Ränder</translation></message>
<message><source>Enlarging a picture</source>
<translation>Ein Bild vergrößern</translation></message>
<message><source>{0} times as large it has too many pixels</source>
<translation>{0}-mal so groß hat es zu viele Pixel</translation></message>
<message><source>Use a smaller number</source>
<translation>Nimm eine kleinere Zahl</translation></message>
<message><source>larger pixels</source>
<translation>größere Pixel</translation></message>
<message><source>tile {0} {1}</source>
<translation>Kachel {0} {1}</translation></message>
<message><source>a cell of {0} × {1} is no whole number of tiles of {2} pixels</source>
<translation>eine Zelle von {0} × {1} ist keine ganze Zahl von Kacheln zu {2} Pixeln</translation></message>
<message><source>Use a side that divides {0} and {1}</source>
<translation>Nimm eine Seite, die {0} und {1} teilt</translation></message>
<message><source>the source ends before the tile in row {0}, column {1}</source>
<translation>die Quelle endet vor der Kachel in Zeile {0}, Spalte {1}</translation></message>
<message><source>Choose where the tiles begin and how large one is</source>
<translation>Wähle, wo die Kacheln beginnen und wie groß eine ist</translation></message>
<message><source>these are no sides</source>
<translation>das sind keine Seiten</translation></message>
<message><source>Write n, e, s and w, or . for none</source>
<translation>Schreib n, e, s und w, oder . für keine</translation></message>
<message><source>tile {0} {1} to tile {2}</source>
<translation>Kachel {0} {1} zu Kachel {2}</translation></message>
<message><source>Touching up</source>
<translation>Ausbessern</translation></message>
<message><source>it is no pixel with a colour</source>
<translation>das ist kein Pixel mit einer Farbe</translation></message>
<message><source>Write 12,4=c03020 for a pixel, - for clear, ~ to fill: 12,4~c03020</source>
<translation>Schreib 12,4=c03020 für ein Pixel, - für klar, ~ zum Füllen: 12,4~c03020</translation></message>
<message><source>differs: allowed, worth a look</source>
<translation>weicht ab: erlaubt, einen Blick wert</translation></message>
<message><source>breaks in the game</source>
<translation>bricht im Spiel</translation></message>
<message><source>Looking up a value</source>
<translation>Einen Wert nachschlagen</translation></message>
<message><source>it says neither which number nor which value</source>
<translation>es sagt weder, welche Nummer, noch, welcher Wert</translation></message>
<message><source>Write [2], [id=quay] or [=fog]</source>
<translation>Schreib [2], [id=quay] oder [=fog]</translation></message>
<message><source>there is a stray {0} at sign {1}</source>
<translation>bei Zeichen {1} steht ein verirrtes {0}</translation></message>
<message><source>Write it as in otter/speed or scene[id=quay]/name; \ goes before / [ ] and \ in names</source>
<translation>Schreib es wie in otter/speed oder scene[id=quay]/name; \ steht vor / [ ] und \ in Namen</translation></message>
<message><source>two columns are called {0}</source>
<translation>zwei Spalten heißen {0}</translation></message>
<message><source>a quote stands inside a value, or is never closed</source>
<translation>ein Anführungszeichen steht in einem Wert oder wird nie geschlossen</translation></message>
<message><source>a value is a text</source>
<translation>ein Wert ist ein Text</translation></message>
<message><source>rows can be added to the table, columns cannot</source>
<translation>der Tabelle lassen sich Zeilen hinzufügen, Spalten nicht</translation></message>
<message><source>Changing a definition</source>
<translation>Eine Definition ändern</translation></message>
<message><source>a row has all its columns</source>
<translation>eine Zeile hat alle ihre Spalten</translation></message>
<message><source>it has {0} values, and the first row names {1}</source>
<translation>sie hat {0} Werte, und die erste Zeile nennt {1}</translation></message>
<message><source>there is no column {0}</source>
<translation>eine Spalte {0} gibt es nicht</translation></message>
<message><source>Writing a text</source>
<translation>Einen Text schreiben</translation></message>
<message><source>the game's own is in {0=}, which has no {1}</source>
<translation>der des Spiels ist in {0=}, das kein {1} hat</translation></message>
<message><source>Write it with other letters</source>
<translation>Schreib es mit anderen Buchstaben</translation></message>
<message><source>it has neither an ending nor files</source>
<translation>es hat weder eine Endung noch Dateien</translation></message>
<message><source>comments, block and several quotes are for other shapes</source>
<translation>comments, block und mehrere Anführungszeichen sind für andere Formen</translation></message>
<message><source>open, close and assign cannot be empty</source>
<translation>open, close und assign können nicht leer sein</translation></message>
<message><source>two of its signs are the same</source>
<translation>zwei ihrer Zeichen sind gleich</translation></message>
<message><source>a list needs list-open, list-close and separator</source>
<translation>eine Liste braucht list-open, list-close und separator</translation></message>
<message><source>{0} stands here, and nothing is open</source>
<translation>hier steht {0}, und nichts ist offen</translation></message>
<message><source>it is nested more than {0} deep</source>
<translation>es ist mehr als {0} tief verschachtelt</translation></message>
<message><source>{0} is missing behind a value</source>
<translation>hinter einem Wert fehlt {0}</translation></message>
<message><source>{0} cannot be written in this notation</source>
<translation>{0} lässt sich in dieser Schreibweise nicht schreiben</translation></message>
<message><source>a record is changed value by value</source>
<translation>ein Datensatz wird Wert um Wert geändert</translation></message>
<message><source>a record keeps its name: give it another, or drop it</source>
<translation>ein Datensatz behält seinen Namen: gib ihm einen anderen, oder lass ihn fallen</translation></message>
<message><source>there is no such encoding: utf-8, utf-16-le, cp1252, latin-1 … are known</source>
<translation>eine solche Kodierung gibt es nicht: bekannt sind utf-8, utf-16-le, cp1252, latin-1 …</translation></message>
<message><source>block has two signs, and no comment is empty</source>
<translation>block hat zwei Zeichen, und kein Kommentar ist leer</translation></message>
<message><source>{0} is never closed</source>
<translation>{0} wird nie geschlossen</translation></message>
<message><source>a name is missing before {0}</source>
<translation>vor {0} fehlt ein Name</translation></message>
<message><source>{0} is missing</source>
<translation>{0} fehlt</translation></message>
<message><source>this notation has no lists</source>
<translation>diese Schreibweise hat keine Listen</translation></message>
<message><source>it ends before {0}</source>
<translation>es endet vor {0}</translation></message>
<message><source>{0} or {1} is missing behind {2}</source>
<translation>hinter {2} fehlt {0} oder {1}</translation></message>
<message><source>a value is missing</source>
<translation>ein Wert fehlt</translation></message>
<message><source>Reading a definition</source>
<translation>Eine Definition lesen</translation></message>
<message><source>{0} bytes are more than a definition has</source>
<translation>{0} Bytes sind mehr, als eine Definition hat</translation></message>
<message><source>{0} has no {1}</source>
<translation>{0} hat kein {1}</translation></message>
<message><source>it is a single value, and nothing can be added to it</source>
<translation>es ist ein einzelner Wert, und nichts lässt sich dazutun</translation></message>
<message><source>a table takes nothing without a key</source>
<translation>eine Tabelle nimmt nichts ohne Schlüssel</translation></message>
<message><source>it has a {0} already</source>
<translation>es hat schon ein {0}</translation></message>
<message><source>the whole cannot be dropped</source>
<translation>das Ganze lässt sich nicht fallen lassen</translation></message>
<message><source>it has no key of its own</source>
<translation>es hat keinen eigenen Schlüssel</translation></message>
<message><source>{0=} cannot be written in {1}</source>
<translation>{0} lässt sich nicht in {1} schreiben</translation></message>
<message><source>{0} (column {1})</source>
<translation>{0} (Spalte {1})</translation></message>
<message><source>Correct it in a text editor</source>
<translation>Berichtige es in einem Texteditor</translation></message>
<message><source>it says that it is in {0=}, which is no known encoding</source>
<translation>sie sagt, sie sei in {0=}, was keine bekannte Kodierung ist</translation></message>
<message><source>Correct the declaration in a text editor</source>
<translation>Berichtige die Angabe in einem Texteditor</translation></message>
<message><source>it is not {0} text</source>
<translation>es ist kein {0}-Text</translation></message>
<message><source>Save it as UTF-8, or say in the profile which encoding the game uses</source>
<translation>Speichere es als UTF-8, oder sag im Profil, welche Kodierung das Spiel nimmt</translation></message>
<message><source>Look at what is there</source>
<translation>Sieh nach, was da ist</translation></message>
<message><source>this kind of file is not taken apart</source>
<translation>diese Art Datei wird nicht zerlegt</translation></message>
<message><source>Known endings: {0}</source>
<translation>Bekannte Endungen: {0}</translation></message>
<message><source>Reading sound events</source>
<translation>Geräusch-Ereignisse lesen</translation></message>
<message><source>it has no events by name</source>
<translation>es hat keine Ereignisse mit Namen</translation></message>
<message><source>it is no event: it has no keys of its own</source>
<translation>es ist kein Ereignis: es hat keine eigenen Schlüssel</translation></message>
<message><source>(?:function|local function|if|for|while|return|void|else|end|def|class|import|#include|switch|case)\b</source>
<translation>(?:function|local function|if|for|while|return|void|else|end|def|class|import|#include|switch|case)\b</translation></message>
<message><source>nothing in it is of this shape</source>
<translation>nichts darin hat diese Form</translation></message>
<message><source>a value is one line of text</source>
<translation>ein Wert ist eine Zeile Text</translation></message>
<message><source>a blank before ; or # would make a comment of the rest</source>
<translation>ein Leerzeichen vor ; oder # machte den Rest zum Kommentar</translation></message>
<message><source>the section {0} is there twice</source>
<translation>der Abschnitt {0} ist zweimal da</translation></message>
<message><source>a value with a comment behind it goes on in the next line</source>
<translation>ein Wert mit einem Kommentar dahinter geht in der nächsten Zeile weiter</translation></message>
<message><source>it is neither a [section], nor key = value, nor a comment</source>
<translation>es ist weder ein [Abschnitt] noch Schlüssel = Wert noch ein Kommentar</translation></message>
<message><source>{0} is there twice</source>
<translation>{0} ist zweimal da</translation></message>
<message><source>Expecting value</source>
<translation>Expecting value</translation></message>
<message><source>Expecting property name enclosed in double quotes</source>
<translation>Expecting property name enclosed in double quotes</translation></message>
<message><source>Extra data</source>
<translation>Extra data</translation></message>
<message><source>Unterminated string starting at</source>
<translation>Unterminated string starting at</translation></message>
<message><source>Invalid control character at</source>
<translation>Invalid control character at</translation></message>
<message><source>Invalid \escape</source>
<translation>Invalid \escape</translation></message>
<message><source>a comma or a closing bracket is missing</source>
<translation>ein Komma oder eine schließende Klammer fehlt</translation></message>
<message><source>a colon is missing</source>
<translation>ein Doppelpunkt fehlt</translation></message>
<message><source>a key in quotes is missing</source>
<translation>ein Schlüssel in Anführungszeichen fehlt</translation></message>
<message><source>something stands behind the end</source>
<translation>hinter dem Ende steht etwas</translation></message>
<message><source>a text is never closed</source>
<translation>ein Text wird nie geschlossen</translation></message>
<message><source>a text is never closed, or has a sign that JSON does not allow</source>
<translation>ein Text wird nie geschlossen, oder hat ein Zeichen, das JSON nicht erlaubt</translation></message>
<message><source>a text has a sign behind \ that JSON does not know</source>
<translation>ein Text hat hinter \ ein Zeichen, das JSON nicht kennt</translation></message>
<message><source>{0=} is no JSON value</source>
<translation>{0} ist kein JSON-Wert</translation></message>
<message><source>it ends too soon</source>
<translation>es endet zu früh</translation></message>
<message><source>{0=} cannot be written in JSON</source>
<translation>{0} lässt sich in JSON nicht schreiben</translation></message>
<message><source>no other has this key</source>
<translation>kein anderer hat diesen Schlüssel</translation></message>
<message><source>is no {0}</source>
<translation>ist kein {0}</translation></message>
<message><source>Write a {0}</source>
<translation>Schreib ein {0}</translation></message>
<message><source>a record's rule says of which definition, as in of = "rules/boats.toml"</source>
<translation>die Regel eines Datensatzes sagt, aus welcher Definition, wie in of = "rules/boats.toml"</translation></message>
<message><source>{0=} is no {1}</source>
<translation>{0} ist kein {1}</translation></message>
<message><source>Write what its siblings have</source>
<translation>Schreib, was seine Geschwister haben</translation></message>
<message><source>{0=} is outside of {1}</source>
<translation>{0} liegt außerhalb von {1}</translation></message>
<message><source>Try it in the game</source>
<translation>Versuch es im Spiel</translation></message>
<message><source>{0=} is no asset</source>
<translation>{0} ist kein Asset</translation></message>
<message><source>{0=} is no colour</source>
<translation>{0} ist keine Farbe</translation></message>
<message><source>Write it as 8a5a34</source>
<translation>Schreib es als 8a5a34</translation></message>
<message><source>{0=} is not in {1}</source>
<translation>{0} ist nicht in {1}</translation></message>
<message><source>{0=} is none of {1}</source>
<translation>{0} ist keins von {1}</translation></message>
<message><source>is no whole number</source>
<translation>ist keine ganze Zahl</translation></message>
<message><source>Write a whole number</source>
<translation>Schreib eine ganze Zahl</translation></message>
<message><source>is less than {0}</source>
<translation>ist kleiner als {0}</translation></message>
<message><source>is more than {0}</source>
<translation>ist größer als {0}</translation></message>
<message><source>is not above {0}</source>
<translation>liegt nicht über {0}</translation></message>
<message><source>is not below {0}</source>
<translation>liegt nicht unter {0}</translation></message>
<message><source>Write another number</source>
<translation>Schreib eine andere Zahl</translation></message>
<message><source>is none of {0}</source>
<translation>ist keins von {0}</translation></message>
<message><source>is no colour</source>
<translation>ist keine Farbe</translation></message>
<message><source>is no asset</source>
<translation>ist kein Asset</translation></message>
<message><source>is not of {0}</source>
<translation>ist nicht von {0}</translation></message>
<message><source>Choose one of these</source>
<translation>Wähle eins davon</translation></message>
<message><source>is not in {0}</source>
<translation>ist nicht in {0}</translation></message>
<message><source>two are called {0}</source>
<translation>zwei heißen {0}</translation></message>
<message><source>Give one another name</source>
<translation>Gib einem einen anderen Namen</translation></message>
<message><source>Correct the name, or add the asset</source>
<translation>Berichtige den Namen, oder füge das Asset hinzu</translation></message>
<message><source>Laying records over others</source>
<translation>Datensätze über andere legen</translation></message>
<message><source>it is no table of records</source>
<translation>es ist keine Tabelle von Datensätzen</translation></message>
<message><source>{0=} was {1=} and is {2=} in the game now</source>
<translation>{0} war {1} und ist im Spiel jetzt {2}</translation></message>
<message><source>after {0=}</source>
<translation>hinter {0}</translation></message>
<message><source>{0=} is called {1}</source>
<translation>{0} heißt {1}</translation></message>
<message><source>{0=} moves {1}</source>
<translation>{0} bewegt {1}</translation></message>
<message><source>without {0=}</source>
<translation>ohne {0}</translation></message>
<message><source>there is no {0=} to put it {1}</source>
<translation>es gibt kein {0}, um es zu setzen: {1}</translation></message>
<message><source>Put it first or last</source>
<translation>Setz es an den Anfang oder das Ende</translation></message>
<message><source>what is different cannot be told value by value</source>
<translation>was anders ist, lässt sich nicht Wert um Wert sagen</translation></message>
<message><source>Use the whole file as the source of a swap</source>
<translation>Nimm die ganze Datei als Quelle eines Tauschs</translation></message>
<message><source> in {0=}</source>
<translation> in {0}</translation></message>
<message><source>new {0=}{1}</source>
<translation>neu: {0}{1}</translation></message>
<message><source>, like {0}</source>
<translation>, wie {0}</translation></message>
<message><source>it has no place of its own</source>
<translation>es hat keinen eigenen Platz</translation></message>
<message><source>there is one of that name already, and it is another</source>
<translation>es gibt schon eines mit diesem Namen, und es ist ein anderes</translation></message>
<message><source>Give the new one another name, or change the one that is there</source>
<translation>Gib dem neuen einen anderen Namen, oder ändere das vorhandene</translation></message>
<message><source>both changed it</source>
<translation>beide haben es geändert</translation></message>
<message><source>a value is one text</source>
<translation>ein Wert ist ein Text</translation></message>
<message><source>a line ends in a single \</source>
<translation>eine Zeile endet mit einem einzelnen \</translation></message>
<message><source>it is changed value by value</source>
<translation>es wird Wert für Wert geändert</translation></message>
<message><source>a list keeps one value at least, and is changed value by value</source>
<translation>eine Liste behält mindestens einen Wert und wird Wert für Wert geändert</translation></message>
<message><source>nothing of its kind stands there, as which it could be written</source>
<translation>nichts seiner Art steht da, nach dem es geschrieben werden könnte</translation></message>
<message><source>it cannot be written in this notation</source>
<translation>es lässt sich in dieser Schreibweise nicht schreiben</translation></message>
<message><source>what stands behind a head stays with it: give it another value</source>
<translation>was hinter einem Kopf steht, bleibt bei ihm: einen anderen Wert geben</translation></message>
<message><source>what stands beside it has no key of its own</source>
<translation>was daneben steht, hat keinen eigenen Schlüssel</translation></message>
<message><source>{0} stands where a name should be</source>
<translation>{0} steht, wo ein Name stehen sollte</translation></message>
<message><source>{0} stands here, and {1} is open</source>
<translation>{0} steht hier, und {1} ist offen</translation></message>
<message><source>{0} stands outside of all brackets</source>
<translation>{0} steht außerhalb aller Klammern</translation></message>
<message><source>[{0}] is never closed</source>
<translation>[{0}] wird nie geschlossen</translation></message>
<message><source>[{0=}] closes nothing</source>
<translation>[{0=}] schließt nichts</translation></message>
<message><source>{0} stands where a value should be</source>
<translation>{0} steht, wo ein Wert stehen sollte</translation></message>
<message><source>bgr hex</source>
<translation>bgr hex</translation></message>
<message><source>bgr number</source>
<translation>bgr-Zahl</translation></message>
<message><source>dark first</source>
<translation>dunkle zuerst</translation></message>
<message><source>light first</source>
<translation>helle zuerst</translation></message>
<message><source>is no list of colours, each a {0}</source>
<translation>ist keine Liste von Farben, jede ein {0}</translation></message>
<message><source>Take it from a picture</source>
<translation>Nimm sie aus einem Bild</translation></message>
<message><source>has {0} colours for {1}</source>
<translation>hat {0} Farben für {1}</translation></message>
<message><source>Take it from a picture with as many</source>
<translation>Nimm sie aus einem Bild mit ebenso vielen</translation></message>
<message><source>is not {0}</source>
<translation>ist nicht {0}</translation></message>
<message><source>Turn it round</source>
<translation>Dreh es um</translation></message>
<message><source>the whole cannot be set</source>
<translation>das Ganze lässt sich nicht setzen</translation></message>
<message><source>nothing can be added to it so</source>
<translation>so lässt sich nichts dazutun</translation></message>
<message><source>it would not read back as it is meant</source>
<translation>es läse sich nicht zurück, wie es gemeint ist</translation></message>
<message><source>its spelling cannot be kept</source>
<translation>seine Schreibung lässt sich nicht behalten</translation></message>
<message><source>it cannot be written in TOML ({0})</source>
<translation>es lässt sich in TOML nicht schreiben ({0})</translation></message>
<message><source>elements and attributes keep their names: add one and drop the other</source>
<translation>Elemente und Attribute behalten ihre Namen: füge eins hinzu und lass das andere fallen</translation></message>
<message><source>there is no element in it</source>
<translation>darin ist kein Element</translation></message>
<message><source>an element is changed part by part</source>
<translation>ein Element wird Teil um Teil geändert</translation></message>
<message><source>{0} is no name in XML</source>
<translation>{0} ist in XML kein Name</translation></message>
<message><source>an element with children gets no text beside them: change it in a text editor</source>
<translation>ein Element mit Kindern bekommt keinen Text daneben: Ändere es in einem Texteditor</translation></message>
<message><source>an element with text has no children</source>
<translation>ein Element mit Text hat keine Kinder</translation></message>
<message><source>it has a text already</source>
<translation>es hat schon einen Text</translation></message>
<message><source>{0} has text between its parts, which is not written anew: copy it in a text editor</source>
<translation>{0} hat Text zwischen seinen Teilen, der nicht neu geschrieben wird: Kopiere es in einem Texteditor</translation></message>
<message><source>The nearest: {0}</source>
<translation>Am nächsten: {0}</translation></message>
<message><source>Packed index in front with zero-terminated names, offsets from the data's start, SHA-256 of each entry</source>
<translation>Gepackter Index vorn, Namen mit Nullbyte am Ende, Orte ab dem Anfang der Daten, SHA-256 jedes Eintrags</translation></message>
<message><source>No index: big-endian records one after the other, each entry packed as its flags say, CRC-32 of its content</source>
<translation>Kein Index: Datensätze hintereinander, höchstes Byte zuerst, jeder Eintrag gepackt, wie seine Schalter sagen, CRC-32 seines Inhalts</translation></message>
<message><source>Names by FNV-1a hash only, sorted; entries in sectors of 2048 bytes; empty places in the index</source>
<translation>Namen nur als FNV-1a-Hash, sortiert; Einträge in Sektoren von 2048 Bytes; leere Plätze im Index</translation></message>
<message><source>Zstandard around the whole file; inside, chunks in chunks, their sizes counted with the record</source>
<translation>Zstandard um die ganze Datei; darin Abschnitte in Abschnitten, ihre Größen mit dem Datensatz gezählt</translation></message>
<message><source>A record before each entry, index and a packed name table behind them, archives inside, CRC-32 of the whole file</source>
<translation>Ein Datensatz vor jedem Eintrag, Index und gepackte Namenstabelle dahinter, Archive darin, CRC-32 der ganzen Datei</translation></message>
<message><source>Entries stored, deflated index with a name table behind them, found through a footer</source>
<translation>Einträge ungepackt, dahinter ein gepackter Index mit Namenstabelle, gefunden durch einen Fuß</translation></message>
<message><source>Entries by the 64-bit hash of their names only, sorted, each LZ4</source>
<translation>Einträge nur nach dem 64-Bit-Hash ihrer Namen, sortiert, jeder LZ4</translation></message>
<message><source>Folders and entries in an index under a mask, each entry in blocks of 8 KiB</source>
<translation>Ordner und Einträge in einem Index unter einer Maske, jeder Eintrag in Blöcken von 8 KiB</translation></message>
<message><source>A chain of tagged chunks; each tune is a chain again, with its loop record</source>
<translation>Eine Kette gekennzeichneter Abschnitte; jedes Stück ist wieder eine Kette, mit seinem Schleifen-Datensatz</translation></message>
<message><source>Index in front, fixed-length names, each entry zlib</source>
<translation>Index vorn, Namen fester Länge, jeder Eintrag zlib</translation></message>
<message><source>Numbered sounds, index in a .tlx beside it, big-endian, CRC-32s in a .sum</source>
<translation>Nummerierte Geräusche, Index in einer .tlx daneben, höchstes Byte zuerst, CRC-32-Summen in einer .sum</translation></message>
<message><source>The game repeats a hull's planks along the boat</source>
<translation>Das Spiel wiederholt die Planken eines Rumpfs am Boot entlang</translation></message>
<message><source>The game takes from it which way the waves face, and lights them</source>
<translation>Das Spiel nimmt daraus, wohin die Wellen zeigen, und beleuchtet sie</translation></message>
<message><source>The game fills it from below and adds its glow</source>
<translation>Das Spiel füllt sie von unten und gibt ihr Schein</translation></message>
<message><source>The game shows it from the bottom up to the fill</source>
<translation>Das Spiel zeigt sie von unten bis zur Füllung</translation></message>
<message><source>The game writes a number into the lower right corner</source>
<translation>Das Spiel schreibt eine Zahl in die untere rechte Ecke</translation></message>
<message><source>The same ensign hangs at three sizes</source>
<translation>Dieselbe Flagge hängt in drei Größen</translation></message>
<message><source>The game multiplies it with a passenger's colour</source>
<translation>Das Spiel nimmt es mit der Farbe eines Fahrgasts mal</translation></message>
<message><source>The game shows him on the shore; cells of no animation are never shown</source>
<translation>Das Spiel zeigt ihn am Ufer; Zellen ohne Bewegung sind nie zu sehen</translation></message>
<message><source>The game paints its red, green and blue from rules/palette.json; the key colour is clear</source>
<translation>Das Spiel malt sein Rot, Grün und Blau aus rules/palette.json; die Schlüsselfarbe ist klar</translation></message>
<message><source>Drawn doubled: each of its pixels is two by two</source>
<translation>Verdoppelt gezeichnet: jedes seiner Pixel ist zwei mal zwei</translation></message>
<message><source>The game builds the shore from it: each tile goes on at some sides</source>
<translation>Das Spiel baut daraus das Ufer: jede Kachel geht an manchen Seiten weiter</translation></message>
<message><source>Stands for a character; it goes with the sheets of that name</source>
<translation>Steht für eine Figur; es gehört zu den Bögen dieses Namens</translation></message>
<message><source>The game plays its bank at 48 000 Hz, whatever a file says</source>
<translation>Das Spiel spielt seine Bank mit 48 000 Hz, was immer eine Datei sagt</translation></message>
<message><source>The tune jumps back at its loop record's end</source>
<translation>Das Stück springt am Ende seines Schleifen-Datensatzes zurück</translation></message>
<message><source>The crew's parts go round together: one of another length falls out of step</source>
<translation>Die Stimmen der Mannschaft gehen zusammen herum: eine anderer Länge kommt aus dem Takt</translation></message>
<message><source>The game lays a mod's boats over its own</source>
<translation>Das Spiel legt die Boote einer Mod über seine eigenen</translation></message>
<message><source>The game lays a mod's words over its own</source>
<translation>Das Spiel legt die Wörter einer Mod über seine eigenen</translation></message>
<message><source>No boat fits into a shallower one</source>
<translation>In ein flacheres passt kein Boot</translation></message>
<message><source>From 6 m/s on the hull planes: the game plays another animation, and the boat flies</source>
<translation>Ab 6 m/s gleitet der Rumpf: das Spiel spielt eine andere Bewegung, und das Boot fliegt</translation></message>
<message><source>It is a part of the scene's width: what is beyond is out of sight</source>
<translation>Es ist ein Teil der Breite der Szene: was darüber liegt, ist außer Sicht</translation></message>
<message><source>The crew rows to it</source>
<translation>Die Mannschaft rudert dazu</translation></message>
<message><source>mail bags</source>
<translation>Postsäcke</translation></message>
<message><source>The game looks the sheet's greys up in these four, from dark to light</source>
<translation>Das Spiel schlägt die Grautöne des Bogens in diesen vier nach, von dunkel nach hell</translation></message>
<message><source>The frame around a portrait has these colours</source>
<translation>Der Rahmen um ein Porträt hat diese Farben</translation></message>
<message><source>The game shows the grey otter in these colours alone</source>
<translation>Das Spiel zeigt den grauen Otter nur in diesen Farben</translation></message>
<message><source>Boat</source>
<translation>Boot</translation></message>
<message><source>A boat that the yard hires out, seen on open water</source>
<translation>Ein Boot, das die Werft verleiht, auf offenem Wasser zu sehen</translation></message>
<message><source>rows on open water</source>
<translation>rudert auf offenem Wasser</translation></message>
<message><source>Passenger</source>
<translation>Fahrgast</translation></message>
<message><source>Someone who waits for the ferry: a grey sheet, coloured by a strip</source>
<translation>Jemand, der auf die Fähre wartet: ein grauer Bogen, von einer Farbreihe gefärbt</translation></message>
<message><source>Village</source>
<translation>Dorf</translation></message>
<message><source>A village that gets mail, with its ensign at three sizes</source>
<translation>Ein Dorf, das Post bekommt, mit seiner Flagge in drei Größen</translation></message>
<message><source>its name</source>
<translation>sein Name</translation></message>
<message><source>its ensign at the quay</source>
<translation>seine Flagge am Kai</translation></message>
<message><source>Tune</source>
<translation>Stück</translation></message>
<message><source>A tune that loops, in the quay's playlist</source>
<translation>Ein Stück, das sich wiederholt, in der Liste des Kais</translation></message>
<message><source>played at the quay</source>
<translation>am Kai gespielt</translation></message>
<message><source>Ferry song</source>
<translation>Fährlied</translation></message>
<message><source>A song that the crew sings on open water, in up to four parts that go round together</source>
<translation>Ein Lied, das die Mannschaft auf offenem Wasser singt, in bis zu vier Stimmen, die zusammen herumgehen</translation></message>
<message><source>Sound event</source>
<translation>Geräusch-Ereignis</translation></message>
<message><source>Something to be heard, one of several takes at a time</source>
<translation>Etwas zum Hören, jeweils eine von mehreren Aufnahmen</translation></message>
<message><source>Picture for sale</source>
<translation>Bild zum Verkauf</translation></message>
<message><source>A picture on the chart room's wall, with a price and what is said of it</source>
<translation>Ein Bild an der Wand der Kartenstube, mit einem Preis und dem, was man darüber sagt</translation></message>
<message><source>its title</source>
<translation>sein Titel</translation></message>
<message><source>its text</source>
<translation>sein Text</translation></message>
<message><source>Ctrl+{0}</source>
<translation>Strg+{0}</translation></message>
<message><source>Shift+{0}</source>
<translation>Umschalt+{0}</translation></message>
<message><source>LOOK</source>
<translation>AUSSEHEN</translation></message>
<message><source>SOUND</source>
<translation>TON</translation></message>
<message><source>KEYS</source>
<translation>TASTEN</translation></message>
<message><source>KIND</source>
<translation>ART</translation></message>
<message><source>LENGTH</source>
<translation>LÄNGE</translation></message>
<message><source>FORMAT</source>
<translation>FORMAT</translation></message>
<message><source>ENTRIES</source>
<translation>EINTRÄGE</translation></message>
<message><source>DESCRIPTION</source>
<translation>BESCHREIBUNG</translation></message>
<message><source>CHANGES</source>
<translation>ÄNDERUNGEN</translation></message>
<message><source>CREDITS</source>
<translation>NENNUNGEN</translation></message>
<message><source>STACK</source>
<translation>STAPEL</translation></message>
<message><source>START</source>
<translation>ANFANG</translation></message>
<message><source>BEGIN</source>
<translation>BEGINNEN</translation></message>
<message><source>STEPS</source>
<translation>SCHRITTE</translation></message>
<message><source>Steps</source>
<translation>Schritte</translation></message>
<message><source>Layers, | between</source>
<translation>Ebenen, mit | dazwischen</translation></message>
<message><source>Lead-in</source>
<translation>Vorlauf</translation></message>
<message><source>Cross-fade</source>
<translation>Überblendung</translation></message>
<message><source>Load-outs</source>
<translation>Mod-Sätze</translation></message>
<message><source>Loudest 3 s</source>
<translation>Lauteste 3 s</translation></message>
<message><source>Loudest 400 ms</source>
<translation>Lauteste 400 ms</translation></message>
<message><source>Original's</source>
<translation>Des Originals</translation></message>
<message><source>Run-length</source>
<translation>Lauflängen</translation></message>
<message><source>Ogg Vorbis</source>
<translation>Ogg Vorbis</translation></message>
<message><source>DC</source>
<translation>Gleichanteil</translation></message>
<message><source>0, double-click</source>
<translation>0, Doppelklick</translation></message>
<message><source>(needed)</source>
<translation>(nötig)</translation></message>
<message><source>accepted</source>
<translation>angenommen</translation></message>
<message><source>across</source>
<translation>quer</translation></message>
<message><source>down</source>
<translation>hinab</translation></message>
<message><source>area</source>
<translation>Fläche</translation></message>
<message><source>badge</source>
<translation>Abzeichen</translation></message>
<message><source>best</source>
<translation>beste</translation></message>
<message><source>good</source>
<translation>gute</translation></message>
<message><source>fast</source>
<translation>schnelle</translation></message>
<message><source>bicubic</source>
<translation>bikubisch</translation></message>
<message><source>lanczos</source>
<translation>Lanczos</translation></message>
<message><source>nearest</source>
<translation>nächste</translation></message>
<message><source>blue</source>
<translation>blau</translation></message>
<message><source>red</source>
<translation>rot</translation></message>
<message><source>green</source>
<translation>grün</translation></message>
<message><source>grey</source>
<translation>grau</translation></message>
<message><source>black</source>
<translation>schwarz</translation></message>
<message><source>white</source>
<translation>weiß</translation></message>
<message><source>mixed</source>
<translation>gemischt</translation></message>
<message><source>both</source>
<translation>beides</translation></message>
<message><source>breaks</source>
<translation>bricht</translation></message>
<message><source>differs</source>
<translation>weicht ab</translation></message>
<message><source>fits</source>
<translation>passt</translation></message>
<message><source>break</source>
<translation>brechen</translation></message>
<message><source>fit</source>
<translation>passen</translation></message>
<message><source>built</source>
<translation>gebaut</translation></message>
<message><source>stale</source>
<translation>veraltet</translation></message>
<message><source>cancel</source>
<translation>abbrechen</translation></message>
<message><source>cancel…</source>
<translation>abbrechen…</translation></message>
<message><source>count</source>
<translation>Anzahl</translation></message>
<message><source>crisp</source>
<translation>scharf</translation></message>
<message><source>cut-out</source>
<translation>ausgeschnitten</translation></message>
<message><source>smooth</source>
<translation>weich</translation></message>
<message><source>darkest</source>
<translation>dunkelste</translation></message>
<message><source>lightest</source>
<translation>hellste</translation></message>
<message><source>decided</source>
<translation>entschieden</translation></message>
<message><source>definition</source>
<translation>Definition</translation></message>
<message><source>described</source>
<translation>beschrieben</translation></message>
<message><source>edge</source>
<translation>Rand</translation></message>
<message><source>emblem</source>
<translation>Abzeichen</translation></message>
<message><source>even</source>
<translation>gleichmäßig</translation></message>
<message><source>false</source>
<translation>falsch</translation></message>
<message><source>true</source>
<translation>wahr</translation></message>
<message><source>filled</source>
<translation>gefüllt</translation></message>
<message><source>fill</source>
<translation>füllen</translation></message>
<message><source>inside</source>
<translation>hineinpassen</translation></message>
<message><source>stretch</source>
<translation>strecken</translation></message>
<message><source>stretched</source>
<translation>gestreckt</translation></message>
<message><source>float 32</source>
<translation>Gleitkomma 32</translation></message>
<message><source>float 64</source>
<translation>Gleitkomma 64</translation></message>
<message><source>full</source>
<translation>voll</translation></message>
<message><source>game's</source>
<translation>des Spiels</translation></message>
<message><source>gauge</source>
<translation>Anzeige</translation></message>
<message><source>icon</source>
<translation>Symbol</translation></message>
<message><source>icons</source>
<translation>Symbole</translation></message>
<message><source>mask</source>
<translation>Maske</translation></message>
<message><source>mask sheet</source>
<translation>Maskenbogen</translation></message>
<message><source>event sound</source>
<translation>Ereignisgeräusch</translation></message>
<message><source>layers</source>
<translation>Lagen</translation></message>
<message><source>faces</source>
<translation>Seiten</translation></message>
<message><source>slices</source>
<translation>Scheiben</translation></message>
<message><source>legacy</source>
<translation>alt</translation></message>
<message><source>letters</source>
<translation>Buchstaben</translation></message>
<message><source>level</source>
<translation>Stufe</translation></message>
<message><source>like</source>
<translation>wie</translation></message>
<message><source>linear</source>
<translation>linear</translation></message>
<message><source>lines</source>
<translation>Zeilen</translation></message>
<message><source>mean</source>
<translation>Mittel</translation></message>
<message><source>mono</source>
<translation>mono</translation></message>
<message><source>stereo</source>
<translation>stereo</translation></message>
<message><source>no</source>
<translation>nein</translation></message>
<message><source>none</source>
<translation>keine</translation></message>
<message><source>normals</source>
<translation>Normalen</translation></message>
<message><source>masks</source>
<translation>Masken</translation></message>
<message><source>colour</source>
<translation>Farbe</translation></message>
<message><source>not</source>
<translation>nicht</translation></message>
<message><source>nothing</source>
<translation>nichts</translation></message>
<message><source>now</source>
<translation>jetzt</translation></message>
<message><source>off</source>
<translation>aus</translation></message>
<message><source>on</source>
<translation>an</translation></message>
<message><source>path</source>
<translation>Pfad</translation></message>
<message><source>power</source>
<translation>Leistung</translation></message>
<message><source>readable</source>
<translation>lesbar</translation></message>
<message><source>record</source>
<translation>Datensatz</translation></message>
<message><source>refused</source>
<translation>abgelehnt</translation></message>
<message><source>repeat</source>
<translation>wiederholen</translation></message>
<message><source>rules</source>
<translation>Regeln</translation></message>
<message><source>semitones</source>
<translation>Halbtöne</translation></message>
<message><source>silence</source>
<translation>Stille</translation></message>
<message><source>sound</source>
<translation>Geräusch</translation></message>
<message><source>sounds</source>
<translation>Geräusche</translation></message>
<message><source>picture</source>
<translation>Bild</translation></message>
<message><source>pictures</source>
<translation>Bilder</translation></message>
<message><source>music</source>
<translation>Musik</translation></message>
<message><source>text</source>
<translation>Text</translation></message>
<message><source>texture</source>
<translation>Textur</translation></message>
<message><source>textures</source>
<translation>Texturen</translation></message>
<message><source>sheet</source>
<translation>Bogen</translation></message>
<message><source>sheets</source>
<translation>Bögen</translation></message>
<message><source>other</source>
<translation>Anderes</translation></message>
<message><source>squares</source>
<translation>Quadrate</translation></message>
<message><source>stops</source>
<translation>Blenden</translation></message>
<message><source>straight</source>
<translation>gerade</translation></message>
<message><source>premultiplied</source>
<translation>vormultipliziert</translation></message>
<message><source>swapped</source>
<translation>getauscht</translation></message>
<message><source>original</source>
<translation>Original</translation></message>
<message><source>tiles</source>
<translation>Kacheln</translation></message>
<message><source>time</source>
<translation>Zeit</translation></message>
<message><source>size</source>
<translation>Größe</translation></message>
<message><source>likeness</source>
<translation>Ähnlichkeit</translation></message>
<message><source>worst</source>
<translation>schlimmster</translation></message>
<message><source>block</source>
<translation>Block</translation></message>
<message><source>exact</source>
<translation>genau</translation></message>
<message><source>tunes</source>
<translation>Stücke</translation></message>
<message><source>tune</source>
<translation>Stück</translation></message>
<message><source>waiting</source>
<translation>wartet</translation></message>
<message><source>running</source>
<translation>läuft</translation></message>
<message><source>yes</source>
<translation>ja</translation></message>
<message><source>yours</source>
<translation>deins</translation></message>
<message><source>zoom</source>
<translation>Maßstab</translation></message>
<message><source>kept</source>
<translation>behalten</translation></message>
<message><source>another</source>
<translation>anderes</translation></message>
<message><source>chosen</source>
<translation>gewählt</translation></message>
<message><source>least</source>
<translation>wenigstens</translation></message>
<message><source>most</source>
<translation>höchstens</translation></message>
<message><source>offset</source>
<translation>Ort</translation></message>
<message><source>set</source>
<translation>gesetzt</translation></message>
<message><source>data</source>
<translation>Daten</translation></message>
<message><source>said</source>
<translation>gesagt</translation></message>
<message><source>field</source>
<translation>Feld</translation></message>
<message><source>value</source>
<translation>Wert</translation></message>
<message><source>values</source>
<translation>Werte</translation></message>
<message><source>archive</source>
<translation>Archiv</translation></message>
<message><source>entry</source>
<translation>Eintrag</translation></message>
<message><source>folder</source>
<translation>Ordner</translation></message>
<message><source>format</source>
<translation>Format</translation></message>
<message><source>kind</source>
<translation>Art</translation></message>
<message><source>name</source>
<translation>Name</translation></message>
<message><source>role</source>
<translation>Rolle</translation></message>
<message><source>state</source>
<translation>Zustand</translation></message>
<message><source>length</source>
<translation>Länge</translation></message>
<message><source>changed</source>
<translation>geändert</translation></message>
<message><source>new</source>
<translation>neu</translation></message>
<message><source>gone</source>
<translation>fort</translation></message>
<message><source>added</source>
<translation>hinzugefügt</translation></message>
<message><source>added {0}</source>
<translation>{0} hinzugefügt</translation></message>
<message><source>kept {0}</source>
<translation>{0} behalten</translation></message>
<message><source>orders</source>
<translation>ordnet</translation></message>
<message><source>bytes</source>
<translation>Bytes</translation></message>
<message><source>frames</source>
<translation>Frames</translation></message>
<message><source>channels</source>
<translation>Kanäle</translation></message>
<message><source>pixels</source>
<translation>Pixel</translation></message>
<message><source>results</source>
<translation>Ergebnisse</translation></message>
<message><source>shapes</source>
<translation>Modelle</translation></message>
<message><source>catalogues</source>
<translation>Kataloge</translation></message>
<message><source>header {0}</source>
<translation>Kopf {0}</translation></message>
<message><source>packed {0}</source>
<translation>gepackt {0}</translation></message>
<message><source>rows {0}</source>
<translation>Zeilen {0}</translation></message>
<message><source>{0} is empty</source>
<translation>{0} ist leer</translation></message>
<message><source>Mirror {0}</source>
<translation>{0} spiegeln</translation></message>
<message><source>Hold {0}</source>
<translation>{0} halten</translation></message>
<message><source>Empty {0}</source>
<translation>{0} leeren</translation></message>
<message><source>Resize {0}</source>
<translation>Größe von {0} ändern</translation></message>
<message><source>Larger {0}</source>
<translation>{0} größer</translation></message>
<message><source>Smaller {0}</source>
<translation>{0} kleiner</translation></message>
<message><source>The original's {0}</source>
<translation>Die des Originals: {0}</translation></message>
<message><source>The shelf</source>
<translation>Das Regal</translation></message>
<message><source>double-click</source>
<translation>Doppelklick</translation></message>
<message><source>all</source>
<translation>alle</translation></message>
<message><source>any</source>
<translation>irgendein</translation></message>
<message><source>upper</source>
<translation>obere</translation></message>
<message><source>lower</source>
<translation>untere</translation></message>
<message><source>left</source>
<translation>links</translation></message>
<message><source>right</source>
<translation>rechts</translation></message>
<message><source>top</source>
<translation>oben</translation></message>
<message><source>bottom</source>
<translation>unten</translation></message>
<message><source>turned</source>
<translation>gedreht</translation></message>
<message><source>together</source>
<translation>zusammen</translation></message>
<message><source>others</source>
<translation>andere</translation></message>
<message><source>before</source>
<translation>davor</translation></message>
<message><source>after</source>
<translation>danach</translation></message>
<message><source>in force</source>
<translation>gelten</translation></message>
<message><source>input should be {0}</source>
<translation>es muss {0} sein</translation></message>
<message><source>input should be {0}, found {1}</source>
<translation>es muss {0} sein, gefunden {1}</translation></message>
<message><source>found {0}</source>
<translation>gefunden {0}</translation></message>
<message><source>field required</source>
<translation>das fehlt</translation></message>
<message><source>extra inputs are not permitted</source>
<translation>das ist hier nicht vorgesehen</translation></message>
<message><source>No such file or directory</source>
<translation>Datei oder Ordner gibt es nicht</translation></message>
<message><source>Permission denied</source>
<translation>keine Erlaubnis</translation></message>
<message><source>Is a directory</source>
<translation>das ist ein Ordner</translation></message>
<message><source>Not a directory</source>
<translation>das ist kein Ordner</translation></message>
<message><source>File exists</source>
<translation>die Datei gibt es schon</translation></message>
<message><source>No space left on device</source>
<translation>auf dem Datenträger ist kein Platz mehr</translation></message>
<message><source>Read-only file system</source>
<translation>der Datenträger lässt sich nicht beschreiben</translation></message>
<message><source>Directory not empty</source>
<translation>der Ordner ist nicht leer</translation></message>
<message><source>Input/output error</source>
<translation>Fehler beim Lesen oder Schreiben</translation></message>
<message><source>Too many open files</source>
<translation>zu viele Dateien sind offen</translation></message>
<message><source>File name too long</source>
<translation>der Dateiname ist zu lang</translation></message>
<message><source>Operation not permitted</source>
<translation>das ist nicht erlaubt</translation></message>
<message><source>Disk quota exceeded</source>
<translation>das Kontingent ist erschöpft</translation></message>
<message><source>{0} is less than {1}</source>
<translation>{0} ist kleiner als {1}</translation></message>
<message><source>{0} is more than {1}</source>
<translation>{0} ist größer als {1}</translation></message>
<message><source>{0} is not above {1}</source>
<translation>{0} liegt nicht über {1}</translation></message>
<message><source>{0} is not below {1}</source>
<translation>{0} liegt nicht unter {1}</translation></message>
<message><source>{0} is none of {1}</source>
<translation>{0} ist keins von {1}</translation></message>
<message><source>{0} is not of {1}</source>
<translation>{0} ist nicht von {1}</translation></message>
<message><source>{0} is no whole number</source>
<translation>{0} ist keine ganze Zahl</translation></message>
<message><source>between {0} and {1}</source>
<translation>zwischen {0} und {1}</translation></message>
<message><source>results {0}</source>
<translation>Ergebnisse {0}</translation></message>
<message><source>shapes {0}</source>
<translation>Modelle {0}</translation></message>
<message><source>catalogues {0}</source>
<translation>Kataloge {0}</translation></message>
<message><source>Loudest 3 s {0}, yours {1}</source>
<translation>Lauteste 3 s {0}, deins {1}</translation></message>
<message><source>Loudest 400 ms {0}, yours {1}</source>
<translation>Lauteste 400 ms {0}, deins {1}</translation></message>
<message><source>run-length {0}</source>
<translation>Lauflängen {0}</translation></message>
<message><source>{0} done again</source>
<translation>{0} wiederholt</translation></message>
<message><source>{0} taken back</source>
<translation>{0} zurückgenommen</translation></message>
<message><source>{0} of {1} swap breaks</source>
<translation>{0} von {1} Tausch bricht</translation></message>
<message><source>{0} of {1} swaps break</source>
<translation>{0} von {1} Tauschen brechen</translation></message>
<message><source>{0} of {1} swaps breaks</source>
<translation>{0} von {1} Tauschen bricht</translation></message>
<message><source>sizes</source>
<translation>Größen</translation></message>
<message><source>offsets</source>
<translation>Orte</translation></message>
<message><source>numbers</source>
<translation>Zahlen</translation></message>
<message><source>names</source>
<translation>Namen</translation></message>
<message><source>undo</source>
<translation>Zurücknehmen</translation></message>
<message><source>redo</source>
<translation>Wiederholen</translation></message>
<message><source>behind</source>
<translation>dahinter</translation></message>
<message><source>trimming takes {0}</source>
<translation>Beschneiden nimmt {0}</translation></message>
<message><source>mirrored</source>
<translation>gespiegelt</translation></message>
<message><source>them</source>
<translation>sie</translation></message>
<message><source>it</source>
<translation>es</translation></message>
<message><source>cell</source>
<translation>Zelle</translation></message>
<message><source>cells</source>
<translation>Zellen</translation></message>
<message><source>file</source>
<translation>Datei</translation></message>
<message><source>files</source>
<translation>Dateien</translation></message>
<message><source>{0} needs {1} at least</source>
<translation>{0} braucht mindestens {1}</translation></message>
<message><source>hull</source>
<translation>Rumpf</translation></message>
<message><source>sail</source>
<translation>Segel</translation></message>
<message><source>normal map</source>
<translation>Normalenkarte</translation></message>
<message><source>surface</source>
<translation>Oberfläche</translation></message>
<message><source>light</source>
<translation>Licht</translation></message>
<message><source>backdrop</source>
<translation>Hintergrund</translation></message>
<message><source>dock</source>
<translation>Steg</translation></message>
<message><source>loop</source>
<translation>Schleife</translation></message>
<message><source>song part</source>
<translation>Liedstimme</translation></message>
<message><source>{n} that will not do</source>
<translation>{n}, die nicht gehen</translation></message>
<message><source>{n} worth a look</source>
<translation>{n} einen Blick wert</translation></message>
<message><source>A value that this record may have: {0}</source>
<translation>Ein Wert, den dieser Datensatz haben kann: {0}</translation></message>
<message><source>{0} and {1} more</source>
<translation>{0} und {1} weitere</translation></message>
<message><source>{0} before</source>
<translation>{0} davor</translation></message>
<message><source>{0} behind</source>
<translation>{0} dahinter</translation></message>
<message><source>{0} before and {1} behind</source>
<translation>{0} davor und {1} dahinter</translation></message>
<message><source>clear</source>
<translation>klar</translation></message>
<message><source>empty</source>
<translation>leer</translation></message>
<message><source>mirror</source>
<translation>gespiegelt</translation></message>
<message><source>repeats</source>
<translation>was sich wiederholt</translation></message>
<message><source>fitting</source>
<translation>passend</translation></message>
<message><source>add</source>
<translation>addieren</translation></message>
<message><source>strength</source>
<translation>Stärke</translation></message>
<message><source>stored</source>
<translation>ungepackt</translation></message>
<message><source>unknown</source>
<translation>unbekannt</translation></message>
</context>
</TS>
