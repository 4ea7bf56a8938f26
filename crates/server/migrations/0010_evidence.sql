-- Pictures of walk tests and of cameras over the years are named by revisions, too.
create or replace function pictures_named(file jsonb) returns setof text language sql immutable as $$
    select distinct named #>> '{}' from (
        select jsonb_path_query(file, 'lax $.drawing.picture') as named
        union all select jsonb_path_query(file, 'lax $.spots[*].photos[*].picture')
        union all select jsonb_path_query(file, 'lax $.targets[*].photos[*].picture')
        union all select jsonb_path_query(file, 'lax $.cameras[*].fitting.photos[*].picture')
        union all select jsonb_path_query(file, 'lax $.proofs[*].picture.picture')
        union all select jsonb_path_query(file, 'lax $.snapshots[*].picture.picture')
    ) pictures where named is not null
$$;
