import type { Action } from './action';

function action(id: string, name: string, keys: string, address: string): Action {
  return { id, name, keys: [keys], when: () => true, run: (context) => context.go(address) };
}

function stage(id: string, name: string, keys: string, ending: string): Action {
  return {
    id,
    name,
    keys: [keys],
    when: ({ build }) => build !== null,
    run: ({ build, go }) => go(`/builds/${build}${ending}`),
  };
}

export const goes: Action[] = [
  stage('go-curves', 'Go to the curves', 'alt+shift+c', ''),
  stage('go-box', 'Go to the box: sizes, boards, drawings', 'alt+shift+o', '/box'),
  action('go-builds', 'Go to the builds', 'alt+shift+b', '/'),
  action('go-drivers', 'Go to the drivers', 'alt+shift+d', '/drivers'),
  action('go-jobs', 'Go to the jobs', 'alt+shift+j', '/jobs'),
];
