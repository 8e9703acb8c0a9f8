<?php

declare(strict_types=1);

namespace Database\Seeders;

/** Names for made-up people, from many naming traditions. Any likeness to someone is chance. */
final class DemoNames
{
    // prettier-ignore
    public const GIVEN = [
        'Amara', 'Noor', 'Mateo', 'Linh', 'Oksana', 'Theo', 'Ines', 'Kai', 'Léa', 'Samuel', 'Duc Anh', 'Grace', 'Emre',
        'Rosalind', 'Tobias', 'Sofía', 'Yusuf', 'Mei', 'Anouk', 'Bram', 'Chiamaka', 'Dariusz', 'Elif', 'Farid',
        'Greta', 'Hana', 'Idris', 'Jonas', 'Katya', 'Leilani', 'Marek', 'Nadia', 'Omar', 'Paloma', 'Quentin', 'Rania',
        'Stellan', 'Tamsin', 'Uma', 'Viktor', 'Wren', 'Ximena', 'Yara', 'Zofia', 'Ada', 'Benedikt', 'Carmen', 'Dmytro',
        'Esme', 'Fionn', 'Gia', 'Hugo', 'Imani', 'Joaquín', 'Keiko', 'Luca', 'Mira', 'Nils', 'Olive', 'Pavlo',
        'Rafael', 'Saoirse', 'Tariq', 'Thuy', 'Vera', 'Xin Yi', 'Anselm', 'Briar', 'Cleo', 'Dalia', 'Ewan', 'Freya',
        'Gideon', 'Hedda', 'Ilya', 'Juno', 'Kofi', 'Lucía', 'Malik', 'Nayeli', 'Orla', 'Priya', 'Ravi', 'Signe',
        'Tomás', 'Ulrika', 'Vikram', 'Willa', 'Yannick', 'Zahra', 'Aziz', 'Bettina', 'Cormac', 'Dinah', 'Eamon',
        'Faye', 'Goran', 'Halima', 'Isolde', 'Jarek',
    ];

    // prettier-ignore
    public const FAMILY = [
        'Nwosu-Vale', 'Haddad', 'Pham', 'Marchetti', 'Ortiz Reyes', 'Whitcombe', 'Żuławski', 'Adeyemi', 'Lindqvist',
        'Yıldız', 'Achterberg', 'Kovalenko', 'Halloran', 'van der Meer', 'Okafor', 'Brandt', 'Castellanos', 'Nguyen',
        'Tran', 'Le', 'Shevchuk', 'de la Cruz', 'O’Dwyer', 'McAllister', 'Rahman', 'al-Sayed', 'bin Yusof', 'Zhang',
        'Wu', 'Chen', 'Petrov', 'Sørensen', 'Dubois', 'Lefèvre', 'Moreau', 'Fonseca', 'Albuquerque', 'Duarte',
        'Kimathi', 'Mbeki', 'Tanaka', 'Sato', 'Park', 'Rao', 'Iyer', 'Chaudhry', 'Gutierrez', 'Velázquez', 'Ibarra',
        'Quispe', 'Kowalczyk', 'Nowak', 'Horvat', 'Novák', 'Szabó', 'Popescu', 'Ivanova', 'Bondarenko', 'Melnyk',
        'Tkachenko', 'Abernathy', 'Blackwood', 'Carrow', 'Dunmore', 'Easterly', 'Fenwick', 'Garrow', 'Hartnell',
        'Inchbald', 'Jessop', 'Kerridge', 'Lockyer', 'Merriweather', 'Northcott', 'Oakeshott', 'Penhaligon', 'Quill',
        'Ravenscroft', 'Saltmarsh', 'Thistlewood', 'Underhay', 'Vantongeren', 'Wexcombe', 'Yarrow', 'Zabala', 'Amadi',
        'Bello', 'Cissé', 'Diallo', 'Eze', 'Farah', 'Gebre', 'Hossain', 'Islamov', 'Jovanović', 'Kaya', 'Larsen',
        'Mancini', 'Nakamura', 'Orozco', 'Pacheco', 'Rashid', 'Silva', 'Torres', 'Usman', 'Vargas', 'Weiss', 'Xu',
        'Yamada', 'Zeller', 'Hollis', 'Brightwater', 'Copperfield', 'Marlowe', 'Seabright', 'Tidewell', 'Gullane',
        'Harrowgate', 'Lantern', 'Shoals',
    ];

    // prettier-ignore
    public const SUBJECTS = [
        'Marine science', 'Algebra', 'World history', 'Literature', 'Chemistry', 'Ceramics', 'Spanish', 'Band',
        'Geometry', 'Biology', 'Robotics', 'Choir',
    ];

    public const BIRDS = ['Heron', 'Plover', 'Curlew', 'Tern'];
}
